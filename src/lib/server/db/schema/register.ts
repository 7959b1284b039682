import type { DonningCard } from '../../../../core/data/blocking.ts';
import { type Block, BLOCKS } from '../../../../core/readiness/block.ts';
import { DUE_WHATS, type DueWhat } from '../../../../core/readiness/findings.ts';
import {
	CODE_SCHEMES,
	type CodeScheme,
	DAY_BENCH_MINUTES,
	type Holiday,
	SEAL_SCHOOLS,
	type SealSchool,
	SET_SCHOOLS,
	type SetSchool,
	SHOWN_PRESSURES,
	type ShownPressure,
	SHOWN_TEMPERATURES,
	type ShownTemperature
} from '../../../../core/site/choices.ts';
import {
	EVENT_WHATS,
	type EventWhat,
	NOTED_EVENTS,
	type NotedEvent
} from '../../../../core/plan/events.ts';
import { RULE_WHATS, type RuleWhat } from '../../../../core/plan/rules.ts';
import type { ModelCard } from '../../../../core/register/model-card.ts';
import { IMPORT_KINDS, type ImportKind } from '../../../../core/csv/kinds.ts';
import {
	PLACE_KINDS,
	type PlaceKind,
	type StorageTrait,
	type TestHouseWork,
	USE_PATTERNS,
	type UsePattern
} from '../../../../core/site/places.ts';
import { SITE_ACCESS } from '../../../../core/access/session.ts';
import type { Role } from '../../kernel/permissions.ts';
import { user } from './accounts.ts';
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
	timestamp,
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
		twoStepRoles: text('two_step_roles').array().$type<Role[]>().notNull().default(['admin']),
		/** Which scheme of filter codes is read first. */
		codeScheme: text('code_scheme').$type<CodeScheme>().notNull().default('en'),
		/** What pressures and temperatures are shown in. */
		pressureUnit: text('pressure_unit').$type<ShownPressure>().notNull().default('bar'),
		temperatureUnit: text('temperature_unit').$type<ShownTemperature>().notNull().default('°C'),
		/** Whether a seal check is asked both ways where the model allows both. */
		sealWays: text('seal_ways').$type<SealSchool>().notNull().default('both'),
		/** How the leak and the warning of a set are looked at; both are offered where the site has not chosen. */
		setSchool: text('set_school').$type<SetSchool>().notNull().default('either'),
		/** Weekdays that the bench works on, Monday 1 to Sunday 7. */
		workDays: integer('work_days').array().notNull().default([1, 2, 3, 4, 5]),
		/** Minutes of bench work that such a day has. */
		benchMinutes: integer('bench_minutes').notNull().default(DAY_BENCH_MINUTES),
		/** Days on which nobody works, with their names. */
		holidays: jsonb('holidays').$type<Holiday[]>().notNull().default([]),
		/** Hour of the day from which the message of the day goes out. */
		digestHour: integer('digest_hour').notNull().default(6),
		/** When its first set-up was ended; null: it goes on. */
		setUpAt: timestamp('set_up_at', { withTimezone: true }),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		oneOf('site_code_scheme', t.codeScheme, CODE_SCHEMES),
		oneOf('site_pressure_unit', t.pressureUnit, SHOWN_PRESSURES),
		oneOf('site_temperature_unit', t.temperatureUnit, SHOWN_TEMPERATURES),
		oneOf('site_seal_ways', t.sealWays, SEAL_SCHOOLS),
		oneOf('site_set_school', t.setSchool, SET_SCHOOLS),
		check(
			'site_work_days',
			sql`cardinality(${t.workDays}) > 0 and ${t.workDays} <@ array[1, 2, 3, 4, 5, 6, 7]`
		),
		check('site_digest_hour', sql`${t.digestHour} between 0 and 23`),
		check('site_bench_minutes', sql`${t.benchMinutes} between 1 and 14400`),
		check('site_single', sql`${t.id} = 1`),
		check(
			'site_access',
			sql`${t.idleMinutes} between 1 and 720 and ${t.wholeHours} between 1 and 168 and ${t.proofMinutes} between 1 and 120`
		)
	]
);

export const place = pgTable(
	'place',
	{
		id: uuid('id').primaryKey(),
		name: text('name').notNull().unique(),
		kind: text('kind').$type<PlaceKind>().notNull().default('room'),
		/** What storing there gives. */
		storage: text('storage').array().$type<StorageTrait[]>().notNull().default([]),
		/** Who answers for it. */
		responsible: text('responsible').references(() => user.id),
		/** Nothing is kept there any more; its past stays. */
		closedOn: date('closed_on'),
		version: integer('version').notNull().default(1)
	},
	(t) => [oneOf('place_kind', t.kind, PLACE_KINDS)]
);

/** How many of a family a place keeps ready. */
export const placeFloor = pgTable(
	'place_floor',
	{
		placeId: uuid('place_id')
			.notNull()
			.references(() => place.id),
		family: text('family').notNull(),
		floor: integer('floor').notNull()
	},
	(t) => [
		primaryKey({ columns: [t.placeId, t.family] }),
		check('place_floor_size', sql`${t.floor} between 0 and 100000`)
	]
);

/** A house that tests cylinders or overhauls equipment for the site. */
export const testHouse = pgTable(
	'test_house',
	{
		id: uuid('id').primaryKey(),
		name: text('name').notNull().unique(),
		/** What it is sent. */
		takes: text('takes').array().$type<TestHouseWork[]>().notNull(),
		/** Days from sending to back on the shelf. */
		turnaroundDays: integer('turnaround_days').notNull(),
		closedOn: date('closed_on'),
		version: integer('version').notNull().default(1)
	},
	(t) => [check('test_house_days', sql`${t.turnaroundDays} between 1 and 366`)]
);

/** A table that was taken in at once, so that it can be taken back whole. */
export const tableImport = pgTable(
	'table_import',
	{
		id: uuid('id').primaryKey(),
		kind: text('kind').$type<ImportKind>().notNull(),
		rows: integer('rows').notNull(),
		doneBy: text('done_by')
			.notNull()
			.references(() => user.id),
		doneAt: timestamp('done_at', { withTimezone: true }).notNull(),
		undoneBy: text('undone_by').references(() => user.id),
		undoneAt: timestamp('undone_at', { withTimezone: true })
	},
	(t) => [
		index('table_import_at').on(t.doneAt),
		oneOf('table_import_kind', t.kind, IMPORT_KINDS),
		check('table_import_undone_whole', sql`(${t.undoneBy} is null) = (${t.undoneAt} is null)`)
	]
);

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
		.default([]),
	/** Its limits, weights and care as its maker gives them (core/register/model-card.ts). */
	card: jsonb('card').$type<ModelCard>().notNull().default({}),
	version: integer('version').notNull().default(1)
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
		/** Since when it is in that set; what the set went through before is not its own. */
		setSince: timestamp('set_since', { withTimezone: true }),
		usePattern: text('use_pattern').$type<UsePattern>().notNull().default('shared'),
		/** The table that it came in with. */
		importId: uuid('import_id').references(() => tableImport.id),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		uniqueIndex('item_tag').on(t.tag),
		index('item_place').on(t.placeId),
		index('item_of_model').on(t.modelId),
		index('item_family').on(t.family, t.placeId),
		// Served by pg_trgm: a tag is found by any part of it.
		index('item_tag_words').using('gin', sql`${t.tag} gin_trgm_ops`),
		index('item_serial_words').using('gin', sql`${t.serial} gin_trgm_ops`),
		index('item_set').on(t.setId),
		index('item_import').on(t.importId),
		oneOf('item_use_pattern', t.usePattern, USE_PATTERNS),
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
		dueDetail: text('due_detail').notNull().default(''),
		/** How far it is, in words, where it goes by what is counted or what happened. */
		dueLeft: text('due_left').notNull().default(''),
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
		// What the register may be sorted by, read in either direction.
		index('item_state_by_due').on(t.dueOn, t.itemId),
		index('item_state_by_inspection').on(t.lastInspectionOn, t.itemId),
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
		/** Which list or job. */
		detail: text('detail').notNull().default(''),
		/** Tag of the part that it is about; empty where it is the item itself. */
		part: text('part').notNull().default(''),
		/** First day on which it counts as due. */
		dueFrom: date('due_from').notNull(),
		/** Last day of use. */
		dueOn: date('due_on').notNull(),
		/** How far it is, in words, where it goes by what is counted or what happened. */
		leftWords: text('left_words').notNull().default('')
	},
	(t) => [
		primaryKey({ columns: [t.itemId, t.what, t.detail, t.part] }),
		index('item_due_on').on(t.dueOn, t.itemId),
		index('item_due_of_kind').on(t.what, t.dueOn, t.itemId),
		oneOf('item_due_what', t.what, DUE_WHATS)
	]
);

/** How far a long import is, told beside its transaction so that others see it; gone when it ends. */
export const importProgress = pgTable('import_progress', {
	id: uuid('id').primaryKey(),
	done: integer('done').notNull().default(0),
	total: integer('total').notNull(),
	/** Somebody asked for its end: nothing of it is kept. */
	cancelled: boolean('cancelled').notNull().default(false),
	at: timestamp('at', { withTimezone: true }).notNull()
});

/** A rule of intervals that the site made itself. */
export const dueRule = pgTable(
	'due_rule',
	{
		id: uuid('id').primaryKey(),
		what: text('what').$type<RuleWhat>().notNull(),
		/** Of a list its level, of a job its key. */
		detail: text('detail').notNull().default(''),
		everyMonths: integer('every_months'),
		everyDays: integer('every_days'),
		everyUses: integer('every_uses'),
		everyHours: integer('every_hours'),
		everyCycles: integer('every_cycles'),
		/** After what it is done again. */
		afterEvent: text('after_event').$type<EventWhat>(),
		/** Days, uses, hours or fillings before its end at which it counts as due. */
		window: integer('window_days').notNull(),
		families: text('families').array().notNull().default([]),
		modelId: uuid('model_id').references(() => itemModel.id),
		usePattern: text('use_pattern').$type<UsePattern>(),
		placeId: uuid('place_id').references(() => place.id),
		/** Key of the shipped rule whose place it takes. */
		replaces: text('replaces'),
		reason: text('reason').notNull().default(''),
		endedOn: date('ended_on'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		oneOf('due_rule_what', t.what, RULE_WHATS),
		check(
			'due_rule_pattern',
			sql`${t.usePattern} is null or ${t.usePattern} in ('personal', 'shared', 'emergency')`
		),
		oneOf('due_rule_after', t.afterEvent, EVENT_WHATS),
		check(
			'due_rule_every',
			sql`num_nonnulls(${t.everyMonths}, ${t.everyDays}, ${t.everyUses}, ${t.everyHours}, ${t.everyCycles}, ${t.afterEvent}) = 1`
		),
		check(
			'due_rule_positive',
			sql`coalesce(${t.everyMonths}, ${t.everyDays}, ${t.everyUses}, ${t.everyHours}, ${t.everyCycles}, 1) > 0 and ${t.window} >= 0`
		)
	]
);

/** What happened to an item and was noted by hand: rules may ask for a look after it. Append-only. */
export const itemEvent = pgTable(
	'item_event',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		what: text('what').$type<NotedEvent>().notNull(),
		note: text('note').notNull().default(''),
		happenedAt: timestamp('happened_at', { withTimezone: true }).notNull(),
		notedBy: text('noted_by')
			.notNull()
			.references(() => user.id)
	},
	(t) => [
		index('item_event_item').on(t.itemId, t.happenedAt),
		oneOf('item_event_what', t.what, NOTED_EVENTS)
	]
);

/** Below how many of a part more is bought. */
export const partLevel = pgTable(
	'part_level',
	{
		part: text('part').primaryKey(),
		reorderLevel: integer('reorder_level').notNull()
	},
	(t) => [check('part_level_size', sql`${t.reorderLevel} between 0 and 100000`)]
);

/** A lot of spare parts in the store. */
export const partLot = pgTable(
	'part_lot',
	{
		id: uuid('id').primaryKey(),
		part: text('part').notNull(),
		lot: text('lot').notNull(),
		quantity: integer('quantity').notNull(),
		useBy: date('use_by'),
		location: text('location').notNull().default(''),
		/** Price of one, in the money of the site. */
		costEach: doublePrecision('cost_each'),
		/** The table that it came in with. */
		importId: uuid('import_id').references(() => tableImport.id)
	},
	(t) => [
		check('part_lot_cost', sql`${t.costEach} >= 0`),
		uniqueIndex('part_lot_once').on(t.part, t.lot),
		check('part_lot_not_below_zero', sql`${t.quantity} >= 0`)
	]
);
