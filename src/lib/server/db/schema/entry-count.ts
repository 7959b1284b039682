import { index, integer, pgTable, text, timestamp } from 'drizzle-orm/pg-core';

/**
 * How many entries of each action the log got in each quarter of an hour; a day of any time zone is made of whole ones.
 * Each row adds to those beside it; written by a trigger on the log, and drawn together now and then.
 */
export const entryCount = pgTable(
	'entry_count',
	{
		quarter: timestamp('quarter', { withTimezone: true }).notNull(),
		action: text('action').notNull(),
		entries: integer('entries').notNull()
	},
	(t) => [index('entry_count_quarter').on(t.quarter)]
);
