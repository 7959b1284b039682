import { sql } from 'drizzle-orm';
import {
	check,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgEnum,
	pgTable,
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { RunOutcome } from '../../../../core/inspection/run.ts';
import type { Readings } from '../../../../core/inspection/reading.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { user } from './accounts.ts';
import { item } from './register.ts';

export const answerValue = pgEnum('answer_value', ['good', 'reject', 'not fitted', 'cleared']);

export const inspectionRun = pgTable(
	'inspection_run',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		procedure: text('procedure').notNull(),
		procedureVersion: integer('procedure_version').notNull(),
		/** Proves a repair; null for an inspection of its own. */
		serviceJobId: uuid('service_job_id'),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		signedBy: text('signed_by').references(() => user.id),
		signedAt: timestamp('signed_at', { withTimezone: true }),
		outcome: text('outcome').$type<RunOutcome>(),
		reasons: jsonb('reasons').$type<Reason[]>()
	},
	(t) => [
		uniqueIndex('inspection_run_one_open')
			.on(t.itemId)
			.where(sql`${t.signedAt} is null`),
		index('inspection_run_item').on(t.itemId, t.signedAt),
		check(
			'inspection_run_signed_whole',
			sql`(${t.signedAt} is null) = (${t.signedBy} is null) and (${t.signedAt} is null) = (${t.outcome} is null)`
		)
	]
);

/** Every answer as it was given; a later one stands over an earlier one. Append-only. */
export const inspectionAnswer = pgTable(
	'inspection_answer',
	{
		/** Made by the client, so that a retried request does not answer twice. */
		id: uuid('id').primaryKey(),
		runId: uuid('run_id')
			.notNull()
			.references(() => inspectionRun.id),
		/** Order within the run. */
		position: integer('position').notNull(),
		step: text('step').notNull(),
		value: answerValue('value').notNull(),
		code: text('code'),
		note: text('note'),
		/** What was read; the value follows from it. */
		readings: jsonb('readings').$type<Readings>(),
		answeredBy: text('answered_by')
			.notNull()
			.references(() => user.id),
		answeredAt: timestamp('answered_at', { withTimezone: true }).notNull()
	},
	(t) => [
		uniqueIndex('inspection_answer_order').on(t.runId, t.position),
		check('inspection_answer_code', sql`(${t.value} = 'reject') = (${t.code} is not null)`)
	]
);

/** A hold that runs, on the server's clock: it survives a reload and another device. */
export const runTimer = pgTable(
	'run_timer',
	{
		id: uuid('id').primaryKey(),
		runId: uuid('run_id')
			.notNull()
			.references(() => inspectionRun.id),
		step: text('step').notNull(),
		startReading: doublePrecision('start_reading').notNull(),
		seconds: integer('seconds').notNull(),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		endedAt: timestamp('ended_at', { withTimezone: true })
	},
	(t) => [
		uniqueIndex('run_timer_one_open')
			.on(t.runId, t.step)
			.where(sql`${t.endedAt} is null`),
		index('run_timer_open').on(t.endedAt)
	]
);
