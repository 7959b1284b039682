import {
	boolean,
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
import type { Handed, Level } from '../../../../core/drill/hand-over.ts';
import { DRILL_MODES, type DrillMode } from '../../../../core/drill/modes.ts';
import type { Memory } from '../../../../core/drill/schedule.ts';
import type { DrillAnswer, DrillScore } from '../../../../core/drill/score.ts';
import { SHORT_TEST_KEYS, type ShortTestKey } from '../../../../core/drill/short-test-names.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';

/** An exam that was begun beside a supervisor: what it hands over is fixed from then on. Append-only. */
export const drillExam = pgTable(
	'drill_exam',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		userId: by('user_id'),
		supervisorId: by('supervisor_id'),
		procedure: text('procedure').notNull(),
		procedureVersion: integer('procedure_version').notNull(),
		level: integer('level').$type<Level>().notNull(),
		seed: integer('seed').notNull(),
		startedAt: moment('started_at').notNull()
	},
	(t) => [index('drill_exam_user').on(t.userId, t.startedAt)]
);

/** A drill that was walked to its end. It says nothing of any real item. Append-only. */
export const drillSession = pgTable(
	'drill_session',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		userId: by('user_id'),
		mode: text('mode').$type<DrillMode>().notNull(),
		examId: uuid('exam_id').references(() => drillExam.id),
		family: text('family').notNull(),
		procedure: text('procedure').notNull(),
		procedureVersion: integer('procedure_version').notNull(),
		handed: jsonb('handed').$type<Handed>().notNull(),
		answers: jsonb('answers').$type<DrillAnswer[]>().notNull(),
		score: jsonb('score').$type<DrillScore>().notNull(),
		points: integer('points').notNull(),
		/** Of an exam. */
		passed: boolean('passed'),
		endedAt: moment('ended_at').notNull()
	},
	(t) => [
		index('drill_session_user').on(t.userId, t.endedAt),
		uniqueIndex('drill_session_exam').on(t.examId),
		oneOf<DrillMode>('drill_session_mode', t.mode, DRILL_MODES)
	]
);

/** A short test that was answered to its end. Append-only. */
export const drillTest = pgTable(
	'drill_test',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		userId: by('user_id'),
		test: text('test').$type<ShortTestKey>().notNull(),
		seed: integer('seed').notNull(),
		/** Which option was chosen of each question. */
		chosen: jsonb('chosen').$type<number[]>().notNull(),
		right: integer('right_answers').notNull(),
		asked: integer('asked').notNull(),
		endedAt: moment('ended_at').notNull()
	},
	(t) => [
		index('drill_test_user').on(t.userId, t.endedAt),
		oneOf<ShortTestKey>('drill_test_known', t.test, SHORT_TEST_KEYS)
	]
);

/** What a person remembers of a kind of fault. */
export const drillMemory = pgTable(
	'drill_memory',
	{
		userId: text('user_id')
			.notNull()
			.references(() => user.id),
		kind: text('kind').notNull(),
		memory: jsonb('memory').$type<Memory>().notNull(),
		dueAt: moment('due_at').notNull(),
		met: integer('met').notNull(),
		found: integer('found').notNull()
	},
	(t) => [primaryKey({ columns: [t.userId, t.kind] }), index('drill_memory_due').on(t.dueAt)]
);

/** How good a person is at a family, against how hard its kinds are. */
export const drillPerson = pgTable(
	'drill_person',
	{
		userId: text('user_id')
			.notNull()
			.references(() => user.id),
		family: text('family').notNull(),
		rating: doublePrecision('rating').notNull(),
		sessions: integer('sessions').notNull(),
		hits: integer('hits').notNull(),
		misses: integer('misses').notNull(),
		falseAlarms: integer('false_alarms').notNull(),
		correctRejections: integer('correct_rejections').notNull()
	},
	(t) => [primaryKey({ columns: [t.userId, t.family] })]
);

/** How hard a kind of fault is here. */
export const drillKind = pgTable('drill_kind', {
	kind: text('kind').primaryKey(),
	rating: doublePrecision('rating').notNull(),
	met: integer('met').notNull(),
	found: integer('found').notNull()
});
