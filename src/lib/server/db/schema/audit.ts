import { sql } from 'drizzle-orm';
import {
	bigint,
	check,
	index,
	integer,
	pgTable,
	primaryKey,
	text,
	timestamp,
	uuid
} from 'drizzle-orm/pg-core';
import { RECORD_KINDS, type RecordKind } from '../../../../core/actions/action.ts';
import { oneOf } from './one-of.ts';

/**
 * Everything that happened, in order, each entry bound to the one before by its hash. A trigger gives sequence,
 * time and hash; triggers refuse update, delete and truncate.
 */
export const auditEntry = pgTable(
	'audit_entry',
	{
		seq: bigint('seq', { mode: 'number' }).primaryKey(),
		at: timestamp('at', { withTimezone: true, precision: 3 }).notNull(),
		actorId: text('actor_id'),
		action: text('action').notNull(),
		itemId: uuid('item_id'),
		subject: text('subject').notNull(),
		/** Canonical JSON, exactly as it was hashed. */
		payload: text('payload').notNull(),
		prevHash: text('prev_hash').notNull(),
		hash: text('hash').notNull()
	},
	(t) => [
		index('audit_entry_item').on(t.itemId, t.seq),
		index('audit_entry_subject').on(t.subject),
		index('audit_entry_at').on(t.at),
		index('audit_entry_actor').on(t.actorId, t.seq),
		index('audit_entry_hash').on(t.hash)
	]
);

/**
 * Entries of a transaction that is not over. The database chains them as it commits, so that no writer holds the end
 * of the chain while it waits for the application; outside a transaction it is empty.
 */
export const auditPending = pgTable('audit_pending', {
	id: bigint('id', { mode: 'number' }).primaryKey().generatedAlwaysAsIdentity(),
	/** Only for records that are brought in with their own time. */
	at: timestamp('at', { withTimezone: true, precision: 3 }),
	actorId: text('actor_id'),
	action: text('action').notNull(),
	itemId: uuid('item_id'),
	subject: text('subject').notNull(),
	payload: text('payload').notNull()
});

/** The end of the chain, so that entries cut off at the end are missed too. */
export const auditHead = pgTable(
	'audit_head',
	{
		id: integer('id').primaryKey().default(1),
		seq: bigint('seq', { mode: 'number' }).notNull(),
		hash: text('hash').notNull()
	},
	(t) => [check('audit_head_single', sql`${t.id} = 1`)]
);

/** The hash of each record as it was made whole; the entry of the log that made it so states the same. Append-only. */
export const recordHash = pgTable(
	'record_hash',
	{
		kind: text('kind').$type<RecordKind>().notNull(),
		recordId: text('record_id').notNull(),
		hash: text('hash').notNull()
	},
	(t) => [
		primaryKey({ columns: [t.kind, t.recordId] }),
		oneOf('record_hash_kind', t.kind, RECORD_KINDS)
	]
);
