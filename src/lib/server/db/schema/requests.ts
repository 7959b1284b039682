import { index, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';

/** Requests that changed something: a second send finds the first one's answer here. Kept for a while only. */
export const writeRequest = pgTable(
	'write_request',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		/** Of who asked and what for. */
		digest: text('digest').notNull(),
		answer: jsonb('answer').$type<unknown>(),
		at: timestamp('at', { withTimezone: true }).notNull()
	},
	(t) => [index('write_request_at').on(t.at)]
);
