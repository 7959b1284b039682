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
import { JOBS, type Job } from '../../../../core/people/competence.ts';
import { SESSION_ENDS, type SessionEnd } from '../../../../core/fit/after.ts';
import { AGENT_KEYS, type AgentKey } from '../../../../core/fit/agents.ts';
import type { CounterReading } from '../../../../core/fit/sequence.ts';
import { FIT_MASKS, type FitMask } from '../../../../core/fit/fit-factor.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';
import { item, itemModel, place, ruleSet, tableImport } from './register.ts';

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
		/** The table that they came in with. */
		importId: uuid('import_id').references(() => tableImport.id),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		uniqueIndex('wearer_number').on(sql`lower(${t.number})`),
		uniqueIndex('wearer_user').on(t.userId),
		index('wearer_by_name').on(sql`lower(${t.name})`),
		index('wearer_import').on(t.importId),
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

/** A fit test as it is made here, from the mask on the face to its last reading. Signed it becomes a fit test. */
export const fitSession = pgTable(
	'fit_session',
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
		/** The mask that is worn, where it is one of the register. */
		itemId: uuid('item_id').references(() => item.id),
		method: text('method').$type<FitMethod>().notNull(),
		ruleSet: ruleSet('rule_set').notNull(),
		protocol: text('protocol'),
		agent: text('agent').$type<AgentKey>(),
		worn: text('worn').notNull().default(''),
		/** What was looked at before the test, by its key. */
		before: jsonb('before').$type<string[]>().notNull(),
		/** The test that this one repeats after the mask was put on anew. */
		againAfter: uuid('again_after'),
		/** Which counter of the list runs it, from 1; null without one. */
		counter: integer('counter'),
		/** What the counter calls itself. */
		instrument: text('instrument').notNull().default(''),
		/** Least particles in the room by which it measures, per cm³. */
		leastRoom: integer('least_room').notNull(),
		startedBy: by('started_by'),
		startedAt: moment('started_at').notNull(),
		/** The counter obeyed, or the exercises of a qualitative test began. */
		begunAt: moment('begun_at'),
		/** Squeezes after which the agent was noticed before the test. */
		squeezes: integer('squeezes'),
		/** Exercise during which the agent was noticed through the mask. */
		noticedAt: text('noticed_at'),
		endedAt: moment('ended_at'),
		ended: text('ended').$type<SessionEnd>()
	},
	(t) => [
		index('fit_session_wearer').on(t.wearerId, t.startedAt),
		index('fit_session_open').on(t.endedAt),
		uniqueIndex('fit_session_one_per_counter')
			.on(t.counter)
			.where(sql`${t.endedAt} is null`),
		uniqueIndex('fit_session_one_per_wearer')
			.on(t.wearerId)
			.where(sql`${t.endedAt} is null`),
		oneOf('fit_session_mask', t.mask, FIT_MASKS),
		oneOf('fit_session_method', t.method, FIT_METHODS),
		oneOf('fit_session_ended', t.ended, SESSION_ENDS),
		oneOf('fit_session_agent', t.agent, AGENT_KEYS),
		check('fit_session_ended_whole', sql`(${t.endedAt} is null) = (${t.ended} is null)`),
		check(
			'fit_session_way',
			sql`(${t.method} = 'quantitative') = (${t.protocol} is not null) and (${t.method} = 'qualitative') = (${t.agent} is not null)`
		)
	]
);

/** Readings of a counter as they came, in order. Append-only. */
export const fitChunk = pgTable(
	'fit_chunk',
	{
		sessionId: uuid('session_id')
			.notNull()
			.references(() => fitSession.id),
		/** Index of its first reading. */
		first: integer('first').notNull(),
		readings: jsonb('readings').$type<CounterReading[]>().notNull()
	},
	(t) => [primaryKey({ columns: [t.sessionId, t.first] })]
);

/** A piece of equipment that is somebody's own. */
export const personalItem = pgTable(
	'personal_item',
	{
		itemId: uuid('item_id')
			.primaryKey()
			.references(() => item.id),
		wearerId: uuid('wearer_id')
			.notNull()
			.references(() => wearer.id),
		since: date('since').notNull()
	},
	(t) => [index('personal_item_wearer').on(t.wearerId)]
);

/** That somebody may do a job. Ended, never deleted. */
export const authorisation = pgTable(
	'authorisation',
	{
		id: uuid('id').primaryKey(),
		userId: by('user_id'),
		job: text('job').$type<Job>().notNull(),
		/** Families that it is for; empty: all. */
		families: text('families').array().notNull(),
		/** Models that it is for; empty: all of its families. */
		modelIds: uuid('model_ids').array().notNull(),
		fromDay: date('from_day').notNull(),
		/** Last day; null: until it is taken back. */
		until: date('until'),
		/** Course, certificate or who saw the work. */
		evidence: text('evidence').notNull(),
		givenBy: by('given_by'),
		givenAt: moment('given_at').notNull(),
		endedOn: date('ended_on'),
		endedBy: text('ended_by').references(() => user.id),
		endedWhy: text('ended_why').notNull().default('')
	},
	(t) => [
		index('authorisation_job').on(t.job, t.userId),
		index('authorisation_user').on(t.userId),
		oneOf('authorisation_job_known', t.job, JOBS),
		check('authorisation_days', sql`${t.until} is null or ${t.until} >= ${t.fromDay}`)
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
		/** What was to be tasted or smelled, of a qualitative one. */
		agent: text('agent').$type<AgentKey>(),
		/** The test as it was made here, where it was; its readings stay with it. */
		sessionId: uuid('session_id').references(() => fitSession.id),
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
		uniqueIndex('fit_test_session').on(t.sessionId),
		oneOf('fit_test_agent', t.agent, AGENT_KEYS),
		oneOf('fit_test_mask', t.mask, FIT_MASKS),
		oneOf('fit_test_method', t.method, FIT_METHODS),
		check(
			'fit_test_whole',
			sql`${t.method} <> 'quantitative' or (${t.protocol} is not null and ${t.factors} is not null and ${t.overall} is not null)`
		)
	]
);
