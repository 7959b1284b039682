import { sql } from 'drizzle-orm';
import {
	check,
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
import { PURPOSES, type Purpose, type Step } from '../../../../core/inspection/procedure.ts';
import type { RunOutcome } from '../../../../core/inspection/run.ts';
import type { Readings } from '../../../../core/inspection/reading.ts';
import type { Reason } from '../../../../core/verdict.ts';
import { user } from './accounts.ts';
import { bytes } from './bytes.ts';
import { oneOf } from './columns.ts';
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
		/** A donning list is kept like an inspection and counts as none. */
		purpose: text('purpose').$type<Purpose>().notNull().default('inspection'),
		/** The signed run that this one takes the place of, and why. */
		supersedes: uuid('supersedes').references((): AnyPgColumn => inspectionRun.id),
		supersedeReason: text('supersede_reason'),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		/** Typed in from a sheet: when and by whom it was done at the item; null where it was done on a device. */
		doneAt: timestamp('done_at', { withTimezone: true }),
		doneBy: text('done_by').references(() => user.id),
		/** The second person, who showed once on the device of the first that they stand there. */
		assistantId: text('assistant_id').references(() => user.id),
		signedBy: text('signed_by').references(() => user.id),
		signedAt: timestamp('signed_at', { withTimezone: true }),
		outcome: text('outcome').$type<RunOutcome>(),
		reasons: jsonb('reasons').$type<Reason[]>()
	},
	(t) => [
		uniqueIndex('inspection_run_one_open')
			.on(t.itemId)
			.where(sql`${t.signedAt} is null`),
		oneOf<Purpose>('inspection_run_purpose', t.purpose, PURPOSES),
		oneOf<RunOutcome>('inspection_run_outcome', t.outcome, ['pass', 'pass, watch', 'fail']),
		index('inspection_run_item').on(t.itemId, t.signedAt),
		index('inspection_run_signed').on(t.signedAt),
		index('inspection_run_job')
			.on(t.serviceJobId)
			.where(sql`${t.serviceJobId} is not null`),
		uniqueIndex('inspection_run_superseded_once').on(t.supersedes),
		check(
			'inspection_run_superseded_with_reason',
			sql`(${t.supersedes} is null) = (${t.supersedeReason} is null)`
		),
		check('inspection_run_paper_whole', sql`(${t.doneAt} is null) = (${t.doneBy} is null)`),
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
		/** When it was given; one that waited on a device without a connection keeps the time it waited. */
		answeredAt: timestamp('answered_at', { withTimezone: true }).notNull(),
		receivedAt: timestamp('received_at', { withTimezone: true })
	},
	(t) => [
		uniqueIndex('inspection_answer_order').on(t.runId, t.position),
		index('inspection_answer_readings')
			.on(t.runId)
			.where(sql`${t.readings} is not null`),
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

/** A version of a procedure that the site made from a shipped one or from an earlier one of its own. Append-only. */
export const procedureEdition = pgTable(
	'procedure_edition',
	{
		key: text('key').notNull(),
		version: integer('version').notNull(),
		name: text('name').notNull(),
		family: text('family').notNull(),
		school: text('school'),
		purpose: text('purpose').$type<Purpose>().notNull().default('inspection'),
		steps: jsonb('steps').$type<Step[]>().notNull(),
		/** Why it was changed. */
		reason: text('reason').notNull(),
		madeBy: text('made_by')
			.notNull()
			.references(() => user.id),
		madeAt: timestamp('made_at', { withTimezone: true }).notNull()
	},
	(t) => [
		primaryKey({ columns: [t.key, t.version] }),
		oneOf<Purpose>('procedure_edition_purpose', t.purpose, PURPOSES),
		index('procedure_edition_family').on(t.family)
	]
);

/** A picture of what was found, drawn anew from its pixels: nothing that came with the file is kept. Append-only. */
export const photo = pgTable(
	'photo',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		runId: uuid('run_id')
			.notNull()
			.references(() => inspectionRun.id),
		step: text('step').notNull(),
		jpeg: bytes('jpeg').notNull(),
		sha256: text('sha256').notNull(),
		width: integer('width').notNull(),
		height: integer('height').notNull(),
		takenBy: text('taken_by')
			.notNull()
			.references(() => user.id),
		takenAt: timestamp('taken_at', { withTimezone: true }).notNull()
	},
	(t) => [index('photo_run').on(t.runId)]
);
