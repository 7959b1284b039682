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
	uuid
} from 'drizzle-orm/pg-core';
import { user } from './accounts.ts';
import { bytes } from './bytes.ts';
import {
	FAULT_ENDS,
	type FaultEnd,
	PART_ENDS,
	type PartEnd
} from '../../../../core/service/ends.ts';
import { by, moment, oneOf } from './columns.ts';
import { inspectionRun } from './inspection.ts';
import { item, partLot } from './register.ts';

export const severity = pgEnum('severity', ['stop', 'repair', 'watch', 'note']);

export const defect = pgTable(
	'defect',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		station: text('station').notNull(),
		code: text('code').notNull(),
		severity: severity('severity').notNull(),
		step: text('step'),
		runId: uuid('run_id').references(() => inspectionRun.id),
		/** Of the first report; every report has its own row. */
		note: text('note'),
		reportedBy: text('reported_by')
			.notNull()
			.references(() => user.id),
		reportedAt: timestamp('reported_at', { withTimezone: true }).notNull(),
		closedAt: timestamp('closed_at', { withTimezone: true }),
		closedHow: text('closed_how').$type<FaultEnd>(),
		/** Who ended it and why, where no repair says so. */
		closedBy: text('closed_by').references(() => user.id),
		closedWhy: text('closed_why')
	},
	(t) => [
		// The same fault reported twice is one fault with two reports.
		uniqueIndex('defect_open_once')
			.on(t.itemId, t.station, t.code)
			.where(sql`${t.closedAt} is null`),
		index('defect_open').on(t.closedAt),
		index('defect_item').on(t.itemId),
		index('defect_reported').on(t.reportedAt),
		oneOf('defect_closed_how', t.closedHow, FAULT_ENDS),
		check('defect_closed_whole', sql`(${t.closedAt} is null) = (${t.closedHow} is null)`),
		check(
			'defect_not_confirmed_why',
			sql`${t.closedHow} <> 'not-confirmed' or (${t.closedWhy} is not null and ${t.closedBy} is not null)`
		)
	]
);

/** Each report of a fault, the first and every one after it. Only taken back, never changed otherwise. */
export const defectReport = pgTable(
	'defect_report',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		defectId: uuid('defect_id')
			.notNull()
			.references(() => defect.id),
		reportedBy: by('reported_by'),
		reportedAt: moment('reported_at').notNull(),
		note: text('note'),
		step: text('step'),
		runId: uuid('run_id').references(() => inspectionRun.id),
		withdrawnAt: moment('withdrawn_at')
	},
	(t) => [index('defect_report_defect').on(t.defectId), index('defect_report_run').on(t.runId)]
);

/** A picture of a fault that was found outside of an inspection, drawn anew from its pixels. Append-only. */
export const defectPhoto = pgTable(
	'defect_photo',
	{
		/** Made by the client. */
		id: uuid('id').primaryKey(),
		defectId: uuid('defect_id')
			.notNull()
			.references(() => defect.id),
		jpeg: bytes('jpeg').notNull(),
		sha256: text('sha256').notNull(),
		width: integer('width').notNull(),
		height: integer('height').notNull(),
		takenBy: by('taken_by'),
		takenAt: moment('taken_at').notNull()
	},
	(t) => [index('defect_photo_defect').on(t.defectId)]
);

export const serviceJob = pgTable(
	'service_job',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		repair: text('repair').notNull(),
		startedBy: text('started_by')
			.notNull()
			.references(() => user.id),
		startedAt: timestamp('started_at', { withTimezone: true }).notNull(),
		/** Which lines of the proving check hold. */
		proof: jsonb('proof').$type<boolean[]>().notNull(),
		doneBy: text('done_by').references(() => user.id),
		doneAt: timestamp('done_at', { withTimezone: true }),
		releasedBy: text('released_by').references(() => user.id),
		releasedAt: timestamp('released_at', { withTimezone: true }),
		/** The inspection after it failed and another repair took over. */
		supersededAt: timestamp('superseded_at', { withTimezone: true }),
		note: text('note'),
		/** Minutes at the bench, as the repairer says. */
		minutes: integer('minutes'),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		index('service_job_item').on(t.itemId),
		uniqueIndex('service_job_one_open')
			.on(t.itemId)
			.where(sql`${t.releasedAt} is null and ${t.supersededAt} is null`),
		check('service_job_minutes', sql`${t.minutes} between 0 and 1440`),
		check('service_job_done_whole', sql`(${t.doneAt} is null) = (${t.doneBy} is null)`),
		check(
			'service_job_release_after_done',
			sql`${t.releasedAt} is null or (${t.doneAt} is not null and ${t.releasedBy} is not null)`
		)
	]
);

export const serviceJobDefect = pgTable(
	'service_job_defect',
	{
		jobId: uuid('job_id')
			.notNull()
			.references(() => serviceJob.id),
		defectId: uuid('defect_id')
			.notNull()
			.references(() => defect.id)
	},
	(t) => [primaryKey({ columns: [t.jobId, t.defectId] })]
);

export const servicePart = pgTable(
	'service_part',
	{
		jobId: uuid('job_id')
			.notNull()
			.references(() => serviceJob.id),
		lotId: uuid('lot_id')
			.notNull()
			.references(() => partLot.id),
		quantity: integer('quantity').notNull()
	},
	(t) => [
		primaryKey({ columns: [t.jobId, t.lotId] }),
		check('service_part_some', sql`${t.quantity} > 0`)
	]
);

/** Which lot of a part sits at which station of an item, since when and until when: for ever. Ended once. */
export const partFitting = pgTable(
	'part_fitting',
	{
		id: uuid('id').primaryKey(),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		station: text('station').notNull(),
		part: text('part').notNull(),
		lotId: uuid('lot_id')
			.notNull()
			.references(() => partLot.id),
		quantity: integer('quantity').notNull(),
		fittedAt: moment('fitted_at').notNull(),
		/** Null: it came with the item. */
		jobId: uuid('job_id').references(() => serviceJob.id),
		removedAt: moment('removed_at'),
		removedHow: text('removed_how').$type<PartEnd>()
	},
	(t) => [
		index('part_fitting_item').on(t.itemId, t.station),
		index('part_fitting_lot').on(t.lotId),
		oneOf('part_fitting_removed_how', t.removedHow, PART_ENDS),
		check('part_fitting_order', sql`${t.removedAt} >= ${t.fittedAt}`),
		check('part_fitting_some', sql`${t.quantity} > 0`),
		check('part_fitting_whole', sql`(${t.removedAt} is null) = (${t.removedHow} is null)`)
	]
);

/** A lot of parts that is called back: whatever has one is held until it is changed. */
export const recall = pgTable(
	'recall',
	{
		id: uuid('id').primaryKey(),
		lotId: uuid('lot_id')
			.notNull()
			.references(() => partLot.id),
		why: text('why').notNull(),
		/** Taken out of the store by it. */
		fromStore: integer('from_store').notNull(),
		by: by('called_by'),
		at: moment('called_at').notNull()
	},
	(t) => [uniqueIndex('recall_once').on(t.lotId)]
);

/** An item that a recall is about. */
export const recallItem = pgTable(
	'recall_item',
	{
		recallId: uuid('recall_id')
			.notNull()
			.references(() => recall.id),
		itemId: uuid('item_id')
			.notNull()
			.references(() => item.id),
		/** The fault that holds it; null: it had one once. */
		defectId: uuid('defect_id').references(() => defect.id),
		/** Of one that had it: who looked into it, and what was found. */
		lookedBy: text('looked_by').references(() => user.id),
		lookedAt: moment('looked_at'),
		looked: text('looked')
	},
	(t) => [
		primaryKey({ columns: [t.recallId, t.itemId] }),
		index('recall_item_item').on(t.itemId),
		check(
			'recall_item_looked_whole',
			sql`(${t.lookedAt} is null) = (${t.lookedBy} is null) and (${t.lookedAt} is null) = (${t.looked} is null)`
		)
	]
);

/** A group with more faults than chance allows: found of an evening, looked into by somebody. */
export const clusterAlarm = pgTable(
	'cluster_alarm',
	{
		id: uuid('id').primaryKey(),
		/** Such as lot:…, batch:…, place:… */
		group: text('group_key').notNull(),
		/** What it is called. */
		name: text('name').notNull(),
		faults: integer('faults').notNull(),
		/** How many it would have had, were it like the others. */
		expected: doublePrecision('expected').notNull(),
		raisedAt: moment('raised_at').notNull(),
		lookedBy: text('looked_by').references(() => user.id),
		lookedAt: moment('looked_at'),
		looked: text('looked')
	},
	(t) => [
		uniqueIndex('cluster_alarm_once').on(t.group),
		index('cluster_alarm_open')
			.on(t.raisedAt)
			.where(sql`${t.lookedAt} is null`),
		check(
			'cluster_alarm_looked_whole',
			sql`(${t.lookedAt} is null) = (${t.lookedBy} is null) and (${t.lookedAt} is null) = (${t.looked} is null)`
		)
	]
);
