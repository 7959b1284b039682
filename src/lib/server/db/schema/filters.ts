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
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import { DISCARD_REASONS } from '../../../../core/filters/ledger.ts';
import { FILTER_ROLES, type FilterRole } from '../../../../core/filters/stock.ts';
import type { Bed } from '../../../../core/filters/wheeler-jonas.ts';
import { user } from './accounts.ts';
import { oneOf } from './columns.ts';
import { hazardPlan } from './hazards.ts';
import { item, tableImport } from './register.ts';

export const filterModel = pgTable(
	'filter_model',
	{
		id: uuid('id').primaryKey(),
		maker: text('maker').notNull(),
		name: text('name').notNull().unique(),
		/** A filter, or what sits over one: that is never one alone. */
		role: text('role').$type<FilterRole>().notNull().default('filter'),
		mount: text('mount').notNull(),
		codeEn: text('code_en'),
		codeUs: text('code_us'),
		massG: integer('mass_g').notNull(),
		/** The maker's bed data, where stated. */
		bed: jsonb('bed').$type<Partial<Bed>>(),
		/** Months that the maker allows after opening. */
		openedMonths: integer('opened_months'),
		/** Sealed filters below which more are bought. */
		reorderLevel: integer('reorder_level').notNull().default(0),
		/** The table that it came in with. */
		importId: uuid('import_id').references(() => tableImport.id),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		check('filter_model_mass', sql`${t.massG} > 0`),
		check(
			'filter_model_coded',
			sql`${t.codeEn} is not null or ${t.codeUs} is not null or ${t.role} in ('retainer', 'adapter')`
		),
		oneOf('filter_model_role', t.role, FILTER_ROLES)
	]
);

export const filterLot = pgTable(
	'filter_lot',
	{
		id: uuid('id').primaryKey(),
		modelId: uuid('model_id')
			.notNull()
			.references(() => filterModel.id),
		lot: text('lot').notNull(),
		useBy: date('use_by').notNull(),
		sealedQuantity: integer('sealed_quantity').notNull(),
		location: text('location').notNull().default(''),
		recalledAt: timestamp('recalled_at', { withTimezone: true }),
		recalledBy: text('recalled_by').references(() => user.id),
		recallReason: text('recall_reason'),
		/** The table that it came in with. */
		importId: uuid('import_id').references(() => tableImport.id)
	},
	(t) => [
		uniqueIndex('filter_lot_once').on(t.modelId, t.lot),
		check('filter_lot_not_below_zero', sql`${t.sealedQuantity} >= 0`),
		check(
			'filter_lot_recall_whole',
			sql`(${t.recalledAt} is null) = (${t.recalledBy} is null) and (${t.recalledAt} is null) = (${t.recallReason} is null)`
		)
	]
);

/** An opened pair (or single filter) on an item. Opened and discarded, never edited. */
export const filterPair = pgTable(
	'filter_pair',
	{
		id: uuid('id').primaryKey(),
		/** Written as FP-0001 on its label. */
		number: integer('number').generatedAlwaysAsIdentity().unique(),
		lotId: uuid('lot_id')
			.notNull()
			.references(() => filterLot.id),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		planId: uuid('plan_id').references(() => hazardPlan.id),
		filters: integer('filters').notNull(),
		openedOn: date('opened_on').notNull(),
		initials: text('initials').notNull(),
		openedBy: text('opened_by')
			.notNull()
			.references(() => user.id),
		/** What the plan gave when the pair was opened. */
		changeAfterMin: integer('change_after_min'),
		exposureMin: integer('exposure_min'),
		singleUse: boolean('single_use').notNull().default(false),
		/** It stays sealed in its pack until this day; null: opened. */
		sealedUntil: date('sealed_until'),
		discardedAt: timestamp('discarded_at', { withTimezone: true }),
		discardReason: text('discard_reason'),
		discardedBy: text('discarded_by').references(() => user.id)
	},
	(t) => [
		uniqueIndex('filter_pair_one_on_item')
			.on(t.itemId)
			.where(sql`${t.discardedAt} is null`),
		index('filter_pair_open').on(t.discardedAt),
		index('filter_pair_item').on(t.itemId),
		index('filter_pair_lot').on(t.lotId),
		oneOf('filter_pair_discard_reason', t.discardReason, DISCARD_REASONS)
	]
);

/** What sits over the filters of a pair, one on each: taken from the store when fitted, used up when taken off. */
export const filterLayer = pgTable(
	'filter_layer',
	{
		id: uuid('id').primaryKey(),
		pairId: uuid('pair_id')
			.notNull()
			.references(() => filterPair.id),
		lotId: uuid('lot_id')
			.notNull()
			.references(() => filterLot.id),
		quantity: integer('quantity').notNull(),
		fittedOn: date('fitted_on').notNull(),
		fittedBy: text('fitted_by')
			.notNull()
			.references(() => user.id),
		removedAt: timestamp('removed_at', { withTimezone: true }),
		removedBy: text('removed_by').references(() => user.id)
	},
	(t) => [
		index('filter_layer_pair').on(t.pairId),
		index('filter_layer_lot').on(t.lotId),
		check('filter_layer_quantity', sql`${t.quantity} between 1 and 4`),
		check('filter_layer_removed_whole', sql`(${t.removedAt} is null) = (${t.removedBy} is null)`)
	]
);

/** One task that a pair was worn for, and what it took of its life. Append-only. */
export const filterWear = pgTable(
	'filter_wear',
	{
		/** Made by the client, so that a retried request does not count twice. */
		id: uuid('id').primaryKey(),
		pairId: uuid('pair_id')
			.notNull()
			.references(() => filterPair.id),
		planId: uuid('plan_id').references(() => hazardPlan.id),
		task: text('task').notNull(),
		wornOn: date('worn_on').notNull(),
		minutes: integer('minutes').notNull(),
		/** What a fresh pair would last at that task, as judged then; null: by resistance. */
		lifeMin: doublePrecision('life_min'),
		enteredBy: text('entered_by')
			.notNull()
			.references(() => user.id),
		enteredAt: timestamp('entered_at', { withTimezone: true }).notNull()
	},
	(t) => [
		index('filter_wear_pair').on(t.pairId),
		check('filter_wear_minutes', sql`${t.minutes} between 1 and 1440`),
		check('filter_wear_life', sql`${t.lifeMin} is null or ${t.lifeMin} >= 0`)
	]
);
