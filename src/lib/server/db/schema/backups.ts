import {
	bigint,
	boolean,
	doublePrecision,
	index,
	integer,
	pgTable,
	text,
	uuid
} from 'drizzle-orm/pg-core';
import { moment } from './columns.ts';

/** A backup that was taken and read back. Append-only. */
export const backup = pgTable(
	'backup',
	{
		id: uuid('id').primaryKey(),
		takenAt: moment('taken_at').notNull(),
		/** Name without its folder. */
		file: text('file').notNull(),
		bytes: bigint('bytes', { mode: 'number' }).notNull(),
		sha256: text('sha256').notNull(),
		encrypted: boolean('encrypted').notNull(),
		seconds: doublePrecision('seconds').notNull(),
		/** Last entry of the log that is in it. */
		entries: integer('entries').notNull()
	},
	(t) => [index('backup_taken').on(t.takenAt)]
);
