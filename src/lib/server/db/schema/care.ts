import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	date,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	serial,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import {
	BATCH_STEPS,
	type BatchStep,
	BROKEN_DECISIONS,
	type BrokenDecision,
	CLEANERS,
	type Cleaner
} from '../../../../core/care/batch.ts';
import {
	BATH_AGENTS,
	type BathAgent,
	DRYING,
	type Drying
} from '../../../../core/care/wash-check.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { by, moment, oneOf } from './columns.ts';
import { item } from './register.ts';

/** A container of stock that baths are dosed from. */
export const stockContainer = pgTable(
	'stock_container',
	{
		id: uuid('id').primaryKey(),
		name: text('name').notNull(),
		agent: text('agent').$type<BathAgent>().notNull(),
		/** Strength on the day it was opened, % weight by volume of what disinfects; null: its label decides. */
		percent: doublePrecision('percent'),
		openedOn: date('opened_on').notNull(),
		/** Days in which half of its strength is gone; null: it keeps. */
		halfLifeDays: doublePrecision('half_life_days'),
		expiresOn: date('expires_on'),
		leftMl: doublePrecision('left_ml').notNull(),
		/** Minutes and dose that its label asks for, where the label decides. */
		labelMin: integer('label_min'),
		closedOn: date('closed_on'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		uniqueIndex('stock_container_name').on(sql`lower(${t.name})`),
		oneOf('stock_container_agent', t.agent, BATH_AGENTS),
		check('stock_container_left', sql`${t.leftMl} between 0 and 1000000`),
		check('stock_container_percent', sql`${t.percent} > 0 and ${t.percent} <= 100`),
		check('stock_container_half_life', sql`${t.halfLifeDays} > 0`)
	]
);

/** What was washed together, step by step on the clock of the server. Ended, it stays as it ended. */
export const washBatch = pgTable(
	'wash_batch',
	{
		id: uuid('id').primaryKey(),
		number: serial('number').notNull().unique(),
		step: text('step').$type<BatchStep>().notNull().default('load'),
		cleaner: text('cleaner').$type<Cleaner>().notNull().default('neutral'),
		/** Contaminant that this bath is for and nothing else; null: none. */
		onlyFor: text('only_for'),
		startedBy: by('started_by'),
		startedAt: moment('started_at').notNull(),
		washedAt: moment('washed_at'),
		containerId: uuid('container_id').references(() => stockContainer.id),
		agent: text('agent').$type<BathAgent>(),
		volumeL: doublePrecision('volume_l'),
		stockMl: doublePrecision('stock_ml'),
		/** What that comes to by the strength of the stock on that day; null: its label decides. */
		dosePpm: doublePrecision('dose_ppm'),
		/** Minutes that the agent is to act. */
		contactMin: integer('contact_min'),
		dosedAt: moment('dosed_at'),
		rinsedAt: moment('rinsed_at'),
		rinsed: boolean('rinsed'),
		driedBy: text('dried_by').$type<Drying>(),
		cabinetC: doublePrecision('cabinet_c'),
		dryAt: moment('dry_at'),
		endedAt: moment('ended_at'),
		endedBy: text('ended_by'),
		outcome: text('outcome'),
		reasons: jsonb('reasons').$type<Reason[]>(),
		/** What was done with its items where it broke a limit. */
		decision: text('decision').$type<BrokenDecision>(),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		index('wash_batch_open')
			.on(t.startedAt)
			.where(sql`${t.endedAt} is null`),
		oneOf('wash_batch_step', t.step, BATCH_STEPS),
		oneOf('wash_batch_cleaner', t.cleaner, CLEANERS),
		oneOf('wash_batch_agent', t.agent, BATH_AGENTS),
		oneOf('wash_batch_dried', t.driedBy, DRYING),
		oneOf('wash_batch_outcome', t.outcome, ['pass', 'fail', 'given up']),
		oneOf('wash_batch_decision', t.decision, BROKEN_DECISIONS),
		// Poisonous gas: refused here too, whatever asks for it.
		check(
			'wash_batch_never_mixed',
			sql`${t.cleaner} = 'neutral' or ${t.agent} is distinct from 'chlorine'`
		),
		check('wash_batch_ended_whole', sql`(${t.endedAt} is null) = (${t.outcome} is null)`)
	]
);

/** What was in a batch. */
export const washBatchItem = pgTable(
	'wash_batch_item',
	{
		id: uuid('id').primaryKey(),
		batchId: uuid('batch_id')
			.notNull()
			.references(() => washBatch.id),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		addedAt: moment('added_at').notNull(),
		/** It was taken out again before the bath was filled. */
		takenOutAt: moment('taken_out_at')
	},
	(t) => [
		uniqueIndex('wash_batch_item_once')
			.on(t.batchId, t.itemId)
			.where(sql`${t.takenOutAt} is null`),
		index('wash_batch_item_item').on(t.itemId, t.addedAt)
	]
);

/** How warm a bath was. Append-only. */
export const washReading = pgTable(
	'wash_reading',
	{
		id: uuid('id').primaryKey(),
		batchId: uuid('batch_id')
			.notNull()
			.references(() => washBatch.id),
		celsius: doublePrecision('celsius').notNull(),
		/** The thermometer read it; else it was typed. */
		measured: boolean('measured').notNull(),
		takenBy: by('taken_by'),
		takenAt: moment('taken_at').notNull()
	},
	(t) => [
		index('wash_reading_batch').on(t.batchId, t.takenAt),
		check('wash_reading_range', sql`${t.celsius} between 0 and 100`)
	]
);

/** A wipe between two full washes. Append-only. */
export const itemWipe = pgTable(
	'item_wipe',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		wipedBy: by('wiped_by'),
		wipedAt: moment('wiped_at').notNull()
	},
	(t) => [index('item_wipe_item').on(t.itemId, t.wipedAt)]
);

/** What was looked at after cleaning, before it went back. Append-only. */
export const careLook = pgTable(
	'care_look',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		batchId: uuid('batch_id').references(() => washBatch.id),
		/** Each thing that was looked at, as it was put. */
		looked: text('looked').array().notNull(),
		good: boolean('good').notNull(),
		lookedBy: by('looked_by'),
		lookedAt: moment('looked_at').notNull()
	},
	(t) => [index('care_look_item').on(t.itemId, t.lookedAt)]
);
