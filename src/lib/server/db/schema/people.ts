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
	primaryKey,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import {
	FACE_CHANGES,
	type FaceChange,
	FIT_METHODS,
	type FitMethod
} from '../../../../core/people/fit-standing.ts';
import { FIT_MASKS, type FitMask } from '../../../../core/fit/fit-factor.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';
import { itemModel, place, ruleSet } from './register.ts';

/** Somebody who wears equipment: what the gate needs of them and no more. */
export const wearer = pgTable(
	'wearer',
	{
		id: uuid('id').primaryKey(),
		/** The number that the site knows them by. */
		number: text('number').notNull(),
		name: text('name').notNull(),
		/** Their account, where they have one. */
		userId: text('user_id').references(() => user.id),
		/** They need glasses, so that a full-face mask needs its insert. */
		eyewear: boolean('eyewear').notNull().default(false),
		/** A beard as last seen. */
		beard: boolean('beard').notNull().default(false),
		/** Last day of their clearance, nothing of why; null: none on record. */
		clearedUntil: date('cleared_until'),
		/** Last day of their training. */
		trainedUntil: date('trained_until'),
		/** They do not wear anything any more. */
		leftOn: date('left_on'),
		/** What told who they are was erased on request: they are a number. */
		erasedOn: date('erased_on'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		uniqueIndex('wearer_number').on(sql`lower(${t.number})`),
		uniqueIndex('wearer_user').on(t.userId),
		index('wearer_by_name').on(sql`lower(${t.name})`),
		check('wearer_number_form', sql`${t.number} <> '' and length(${t.number}) <= 20`)
	]
);

/** Places that a wearer works at. */
export const wearerPlace = pgTable(
	'wearer_place',
	{
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id),
		placeId: uuid('place_id')
			.notNull()
			.references(() => place.id)
	},
	(t) => [primaryKey({ columns: [t.wearerId, t.placeId] })]
);

/** Names that were typed before there was a register, and whom they mean. The rows that carry them are never rewritten. */
export const wearerName = pgTable(
	'wearer_name',
	{
		/** As it was typed, in small letters. */
		name: text('name').primaryKey(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id)
	},
	(t) => [index('wearer_name_of').on(t.wearerId)]
);

/** A change of a face that was reported: the fit tests before it end that day. Append-only. */
export const wearerChange = pgTable(
	'wearer_change',
	{
		id: uuid('id').primaryKey(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id),
		what: text('what').$type<FaceChange>().notNull(),
		reportedOn: date('reported_on').notNull(),
		reportedAt: moment('reported_at').notNull(),
		reportedBy: by('reported_by')
	},
	(t) => [
		index('wearer_change_wearer').on(t.wearerId, t.reportedOn),
		oneOf('wearer_change_what', t.what, FACE_CHANGES)
	]
);

/** A fit test that was signed. Append-only. */
export const fitTest = pgTable(
	'fit_test',
	{
		id: uuid('id').primaryKey(),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id),
		modelId: uuid('model_id')
			.notNull()
			.references(() => itemModel.id),
		size: text('size').notNull(),
		mask: text('mask').$type<FitMask>().notNull(),
		method: text('method').$type<FitMethod>().notNull(),
		ruleSet: ruleSet('rule_set').notNull(),
		/** Key of the protocol, of a quantitative one. */
		protocol: text('protocol'),
		/** Factor of each exercise by its key, unrounded. */
		factors: jsonb('factors').$type<Record<string, number>>(),
		overall: doublePrecision('overall'),
		passed: boolean('passed').notNull(),
		reasons: jsonb('reasons').$type<Reason[]>().notNull(),
		/** Glasses and other head gear that were worn. */
		worn: text('worn').notNull().default(''),
		testedOn: date('tested_on').notNull(),
		testedAt: moment('tested_at'),
		/** Typed in from a sheet of paper. */
		fromPaper: boolean('from_paper').notNull().default(false),
		/** Who tested, where it was not whoever typed it in. */
		tester: text('tester').notNull().default(''),
		signedBy: by('signed_by'),
		signedAt: moment('signed_at').notNull()
	},
	(t) => [
		index('fit_test_wearer').on(t.wearerId, t.testedOn),
		index('fit_test_model').on(t.modelId, t.size),
		oneOf('fit_test_mask', t.mask, FIT_MASKS),
		oneOf('fit_test_method', t.method, FIT_METHODS),
		check(
			'fit_test_whole',
			sql`${t.method} <> 'quantitative' or (${t.protocol} is not null and ${t.factors} is not null and ${t.overall} is not null)`
		)
	]
);
