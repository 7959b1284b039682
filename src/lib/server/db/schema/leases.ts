import { pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';

/** What one process does at a time, and until when nobody else does. */
export const lease = pgTable('lease', {
	name: text('name').primaryKey(),
	holder: uuid('holder').notNull(),
	until: timestamp('until', { withTimezone: true }).notNull()
});
