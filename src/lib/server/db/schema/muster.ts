import {
	check,
	index,
	jsonb,
	pgTable,
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import { sql } from 'drizzle-orm';
import type { SealAttempt, SealOutcome } from '../../../../core/fit/seal-check.ts';
import { user } from './accounts.ts';
import { oneOf } from './columns.ts';
import { item, place } from './register.ts';

/** A walk over many items with one sheet: scan after scan, exceptions only. */
export const muster = pgTable(
	'muster',
	{
		id: uuid('id').primaryKey(),
		/** What was to be presented: of one place or of all, of one family or of all. */
		placeId: uuid('place_id').references(() => place.id),
		family: text('family'),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		closedBy: text('closed_by').references(() => user.id),
		closedAt: timestamp('closed_at', { withTimezone: true }),
		/** Tags that were to be presented and were not, when it was closed. */
		missing: jsonb('missing').$type<string[]>()
	},
	(t) => [
		index('muster_started').on(t.startedAt),
		check(
			'muster_closed_whole',
			sql`(${t.closedAt} is null) = (${t.closedBy} is null) and (${t.closedAt} is null) = (${t.missing} is null)`
		)
	]
);

/** One item that was presented. */
export const musterEntry = pgTable(
	'muster_entry',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		musterId: uuid('muster_id')
			.notNull()
			.references(() => muster.id),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		seenBy: text('seen_by')
			.notNull()
			.references(() => user.id),
		seenAt: timestamp('seen_at', { withTimezone: true }).notNull(),
		/** What was found, where anything was. */
		code: text('code'),
		station: text('station')
	},
	(t) => [
		index('muster_entry_item').on(t.itemId),
		uniqueIndex('muster_entry_once').on(t.musterId, t.itemId),
		check('muster_entry_code', sql`(${t.code} is null) = (${t.station} is null)`)
	]
);

/** Seal checks of a wearer before going in, each with every attempt. Append-only. */
export const sealCheck = pgTable(
	'seal_check',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		wearer: text('wearer').notNull(),
		attempts: jsonb('attempts').$type<SealAttempt[]>().notNull(),
		outcome: text('outcome').$type<SealOutcome>().notNull(),
		doneBy: text('done_by')
			.notNull()
			.references(() => user.id),
		doneAt: timestamp('done_at', { withTimezone: true }).notNull()
	},
	(t) => [
		index('seal_check_item').on(t.itemId, t.doneAt),
		oneOf<SealOutcome>('seal_check_outcome', t.outcome, ['seals', 'inspect', 'no entry'])
	]
);
