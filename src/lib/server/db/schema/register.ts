import type { DonningCard } from '../../../../core/data/blocking.ts';
import {
	BLOCKS,
	DUE_WHATS,
	type Block,
	type DueWhat
} from '../../../../core/readiness/findings.ts';
import { SITE_ACCESS } from '../../../../core/access/session.ts';
import type { Role } from '../../kernel/permissions.ts';
import { oneOf } from './columns.ts';
import { sql } from 'drizzle-orm';
import {
	boolean,
	check,
	date,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgEnum,
	pgTable,
	primaryKey,
	text,
	uniqueIndex,
	uuid,
	type AnyPgColumn
} from 'drizzle-orm/pg-core';

export const ruleSet = pgEnum('rule_set', ['us', 'uk']);

/** The one site of this installation and its choices. */
export const site = pgTable(
	'site',
	{
		id: integer('id').primaryKey().default(1),
		name: text('name').notNull(),
		ruleSet: ruleSet('rule_set').notNull().default('uk'),
		timeZone: text('time_zone').notNull().default('Europe/London'),
		/** Who wrote a plan does not approve it, who repaired does not release. A stop fault asks for it always. */
		twoPeople: boolean('two_people').notNull().default(true),
		/** A session on a shared bench ends when nobody has used it for so long. */
		idleMinutes: integer('idle_minutes').notNull().default(SITE_ACCESS.idleMinutes),
		/** Every session ends after so long. */
		wholeHours: integer('whole_hours').notNull().default(SITE_ACCESS.wholeHours),
		/** Who showed within so long that it is them is not asked again before signing. */
		proofMinutes: integer('proof_minutes').notNull().default(SITE_ACCESS.proofMinutes),
		/** Roles that come in with a code of their authenticator too. */
		twoStepRoles: text('two_step_roles').array().$type<Role[]>().notNull().default(['admin'])
	},
	(t) => [
		check('site_single', sql`${t.id} = 1`),
		check(
			'site_access',
			sql`${t.idleMinutes} between 1 and 720 and ${t.wholeHours} between 1 and 168 and ${t.proofMinutes} between 1 and 120`
		)
	]
);

export const place = pgTable('place', {
	id: uuid('id').primaryKey(),
	name: text('name').notNull().unique(),
	/** Half masks that must stay ready here. */
	floor: integer('floor').notNull().default(0)
});

/** A model of equipment: what fits it and what its maker says. */
export const itemModel = pgTable('item_model', {
	id: uuid('id').primaryKey(),
	family: text('family').notNull(),
	maker: text('maker').notNull(),
	name: text('name').notNull().unique(),
	mount: text('mount').notNull(),
	filterCount: integer('filter_count').notNull().default(2),
	/** Rated pressure of a set or cylinder, bar. */
	ratedBar: integer('rated_bar'),
	/** What its maker allows to be lost in a hold where that is less than the standard, bar. */
	holdDropBar: doublePrecision('hold_drop_bar'),
	/** Taken from the market by its maker: every item of it is held. */
	withdrawnOn: date('withdrawn_on'),
	withdrawnWhy: text('withdrawn_why'),
	/** How its maker says that it is put on; null: nothing of its own. */
	donning: jsonb('donning').$type<DonningCard>(),
	/** Names of the models that are approved with it: filters, cylinders, masks. Empty: nothing is refused. */
	approved: jsonb('approved').$type<string[]>().notNull().default([]),
	makerLines: jsonb('maker_lines')
		.$type<{ station: string; text: string }[]>()
		.notNull()
		.default([])
});

export const item = pgTable(
	'item',
	{
		id: uuid('id').primaryKey(),
		tag: text('tag').notNull(),
		family: text('family').notNull(),
		modelId: uuid('model_id')
			.notNull()
			.references(() => itemModel.id),
		size: text('size').notNull(),
		serial: text('serial').notNull().default(''),
		placeId: uuid('place_id')
			.notNull()
			.references(() => place.id),
		inUseSince: date('in_use_since').notNull(),
		retiredOn: date('retired_on'),
		/** The set that it is a part of now. */
		setId: uuid('set_id').references((): AnyPgColumn => item.id),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		uniqueIndex('item_tag').on(t.tag),
		index('item_place').on(t.placeId),
		index('item_of_model').on(t.modelId),
		index('item_family').on(t.family, t.placeId),
		// Served by pg_trgm: a tag is found by any part of it.
		index('item_tag_words').using('gin', sql`${t.tag} gin_trgm_ops`),
		index('item_set').on(t.setId),
		check('item_not_its_own_part', sql`${t.setId} <> ${t.id}`),
		check('item_tag_form', sql`${t.tag} ~ '^[A-Z0-9][A-Z0-9-]{1,19}$'`)
	]
);

/**
 * What the facts of an item come to, kept for asking in bulk. Not a truth of its own: rebuilt from the facts by
 * one function after every write (readiness/rebuild.ts).
 */
export const itemState = pgTable(
	'item_state',
	{
		itemId: uuid('item_id')
			.primaryKey()
			.references(() => item.id),
		blocked: text('blocked').$type<Block>(),
		dueFrom: date('due_from').notNull(),
		dueOn: date('due_on').notNull(),
		dueWhat: text('due_what').$type<DueWhat>().notNull(),
		/** Why it is looked at sooner though nothing is wrong; null: it is not. */
		watchedFor: text('watched_for'),
		lastInspectionOn: date('last_inspection_on')
	},
	(t) => [
		oneOf('item_state_blocked_word', t.blocked, BLOCKS),
		oneOf('item_state_due_what', t.dueWhat, DUE_WHATS),
		index('item_state_due')
			.on(t.dueOn)
			.where(sql`${t.blocked} is null`),
		index('item_state_blocked')
			.on(t.blocked)
			.where(sql`${t.blocked} is not null`),
		index('item_state_watched')
			.on(t.watchedFor)
			.where(sql`${t.watchedFor} is not null`)
	]
);

/** Everything that falls due about each item; of a set one row per part as well. Rebuilt with the state. */
export const itemDue = pgTable(
	'item_due',
	{
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		what: text('what').$type<DueWhat>().notNull(),
		/** Tag of the part that it is about; empty where it is the item itself. */
		part: text('part').notNull().default(''),
		/** First day on which it counts as due. */
		dueFrom: date('due_from').notNull(),
		/** Last day of use. */
		dueOn: date('due_on').notNull()
	},
	(t) => [
		primaryKey({ columns: [t.itemId, t.what, t.part] }),
		index('item_due_on').on(t.dueOn, t.itemId),
		oneOf('item_due_what', t.what, DUE_WHATS)
	]
);

/** A lot of spare parts in the store. */
export const partLot = pgTable(
	'part_lot',
	{
		id: uuid('id').primaryKey(),
		part: text('part').notNull(),
		lot: text('lot').notNull(),
		quantity: integer('quantity').notNull(),
		useBy: date('use_by')
	},
	(t) => [
		uniqueIndex('part_lot_once').on(t.part, t.lot),
		check('part_lot_not_below_zero', sql`${t.quantity} >= 0`)
	]
);
