import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import { WHERES, type Where } from '../../../../core/custody/custody.ts';
import type { Noticed } from '../../../../core/custody/noticed.ts';
import type { GateReason } from '../../../../core/handout/gate-reason.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';
import { washBatch } from './care.ts';
import { hazardPlan } from './hazards.ts';
import { wearer } from './people.ts';
import { item, place, testHouse } from './register.ts';

/** What went over the counter to one person for one task, with what the gate said. Append-only. */
export const handOut = pgTable(
	'hand_out',
	{
		id: uuid('id').primaryKey(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id),
		/** The task; null: personal issue, for no one task. */
		planId: uuid('plan_id').references(() => hazardPlan.id),
		/** Minutes that are planned; null: not said. */
		minutes: integer('minutes'),
		outcome: text('outcome').notNull(),
		reasons: jsonb('reasons').$type<GateReason[]>().notNull(),
		/** Why it was handed out against the gate, by whom; null: it was not. */
		overrideReason: text('override_reason'),
		/** The answer was given by what the device knew, without a connection. */
		offline: boolean('offline').notNull().default(false),
		dueBackAt: moment('due_back_at'),
		handedBy: by('handed_by'),
		handedAt: moment('handed_at').notNull()
	},
	(t) => [
		index('hand_out_wearer').on(t.wearerId, t.handedAt),
		index('hand_out_at').on(t.handedAt),
		oneOf('hand_out_outcome', t.outcome, ['hand out', 'with conditions', 'do not']),
		check(
			'hand_out_against_the_gate_with_a_reason',
			sql`${t.outcome} <> 'do not' or length(trim(coalesce(${t.overrideReason}, ''))) > 0`
		),
		check('hand_out_minutes', sql`${t.minutes} between 1 and 1440`)
	]
);

/** Where each item is and with whom: one row of each is open. A row is ended, never changed otherwise. */
export const custody = pgTable(
	'custody',
	{
		id: uuid('id').primaryKey().defaultRandom(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		where: text('where_it_is').$type<Where>().notNull(),
		/** The shelf that it lies on, or where it waits. */
		placeId: uuid('place_id').references(() => place.id),
		wearerId: uuid('wearer_id').references(() => wearer.id),
		handOutId: uuid('hand_out_id').references(() => handOut.id),
		batchId: uuid('batch_id').references(() => washBatch.id),
		testHouseId: uuid('test_house_id').references(() => testHouse.id),
		/** Why, where the scan contradicted the record or something is held back. */
		note: text('note').notNull().default(''),
		since: moment('since').notNull(),
		/** Who moved it there; null: it came with the item. */
		movedBy: text('moved_by'),
		until: moment('until')
	},
	(t) => [
		uniqueIndex('custody_open_once')
			.on(t.itemId)
			.where(sql`${t.until} is null`),
		index('custody_item').on(t.itemId, t.since),
		index('custody_open_where')
			.on(t.where, t.since)
			.where(sql`${t.until} is null and ${t.where} <> 'shelf'`),
		index('custody_wearer')
			.on(t.wearerId)
			.where(sql`${t.wearerId} is not null`),
		index('custody_hand_out').on(t.handOutId),
		index('custody_batch').on(t.batchId),
		oneOf('custody_where', t.where, WHERES),
		check('custody_issued_to', sql`(${t.where} = 'issued') = (${t.wearerId} is not null)`),
		check('custody_in_batch', sql`${t.where} <> 'wash' or ${t.batchId} is not null`),
		check('custody_in_order', sql`${t.until} >= ${t.since}`)
	]
);

/** What was said when something came back. Append-only. */
export const itemReturn = pgTable(
	'item_return',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		/** The hand-out that it ends; null: there was none on record. */
		handOutId: uuid('hand_out_id').references(() => handOut.id),
		/** Who had it on record; null: nobody. */
		wearerId: uuid('wearer_id').references(() => wearer.id),
		planId: uuid('plan_id').references(() => hazardPlan.id),
		used: boolean('used').notNull(),
		minutes: integer('minutes'),
		bar: doublePrecision('bar'),
		noticed: text('noticed').array().$type<Noticed[]>().notNull().default([]),
		/** What is on it, as the plan says. */
		contaminatedWith: text('contaminated_with').array().notNull().default([]),
		/** It goes into a bath of its own, with nothing else. */
		ownBath: boolean('own_bath').notNull().default(false),
		note: text('note').notNull().default(''),
		/** The answer to what contradicted the record. */
		because: text('because').notNull().default(''),
		/** Its minutes are counted by a row of their own: of filters or of the board. */
		countedElsewhere: boolean('counted_elsewhere').notNull().default(false),
		offline: boolean('offline').notNull().default(false),
		returnedBy: by('returned_by'),
		returnedAt: moment('returned_at').notNull()
	},
	(t) => [
		index('item_return_item').on(t.itemId, t.returnedAt),
		index('item_return_wearer').on(t.wearerId, t.returnedAt),
		check('item_return_minutes', sql`${t.minutes} between 0 and 1440`),
		check('item_return_bar', sql`${t.bar} between 0 and 450`)
	]
);

/** The seal of a cupboard or carrier that an emergency item lies in; broken once, and then as it was. */
export const itemSeal = pgTable(
	'item_seal',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		/** As it stands on the seal. */
		number: text('number').notNull(),
		sealedBy: by('sealed_by'),
		sealedAt: moment('sealed_at').notNull(),
		brokenBy: text('broken_by').references(() => user.id),
		brokenAt: moment('broken_at'),
		brokenWhy: text('broken_why')
	},
	(t) => [
		uniqueIndex('item_seal_one_open')
			.on(t.itemId)
			.where(sql`${t.brokenAt} is null`),
		index('item_seal_item').on(t.itemId, t.sealedAt),
		check(
			'item_seal_broken_whole',
			sql`(${t.brokenAt} is null) = (${t.brokenBy} is null) and (${t.brokenAt} is null) = (${t.brokenWhy} is null)`
		)
	]
);
