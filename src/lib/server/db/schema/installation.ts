import { sql } from 'drizzle-orm';
import { check, doublePrecision, integer, pgTable, text } from 'drizzle-orm/pg-core';
import { moment } from './columns.ts';

/** What this database is tied to. */
export const installation = pgTable(
	'installation',
	{
		id: integer('id').primaryKey().default(1),
		/** Tells the secret of the installation from another, and nothing of it. */
		secretMark: text('secret_mark').notNull(),
		madeAt: moment('made_at').notNull(),
		/** Of the code that opens the first set-up; null where it was used or never drawn. */
		setUpHash: text('set_up_hash')
	},
	(t) => [check('installation_single', sql`${t.id} = 1`)]
);

/**
 * What time is counted on while people are in or a hold runs: the monotonic clock of a machine, from one start of it to
 * the next, with where it stood.
 */
export const steadyClock = pgTable('steady_clock', {
	/** Start of a machine, as its kernel names it. */
	boot: text('boot').primaryKey(),
	/** What is added to the monotonic clock of the machine, ms since 1970. */
	baseMs: doublePrecision('base_ms').notNull(),
	/** How far the clock of the database is ahead of the steady one, ms. */
	databaseAheadMs: doublePrecision('database_ahead_ms').notNull().default(0),
	/** The jump of the clock that was recorded, ms. */
	saidMs: doublePrecision('said_ms').notNull().default(0),
	changedAt: moment('changed_at').notNull()
});
