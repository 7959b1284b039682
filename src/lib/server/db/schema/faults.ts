import { sql } from 'drizzle-orm';
import {
	check,
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
import { oneOf } from './columns.ts';
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
		note: text('note'),
		reports: integer('reports').notNull().default(1),
		reportedBy: text('reported_by')
			.notNull()
			.references(() => user.id),
		reportedAt: timestamp('reported_at', { withTimezone: true }).notNull(),
		closedAt: timestamp('closed_at', { withTimezone: true }),
		/** released: mended and let go; withdrawn: answered by mistake and undone before signing. */
		closedHow: text('closed_how').$type<'released' | 'withdrawn' | 'retired'>()
	},
	(t) => [
		// The same fault reported twice is one fault with two reports.
		uniqueIndex('defect_open_once')
			.on(t.itemId, t.station, t.code)
			.where(sql`${t.closedAt} is null`),
		index('defect_open').on(t.closedAt),
		index('defect_item').on(t.itemId),
		oneOf('defect_closed_how', t.closedHow, ['released', 'withdrawn', 'retired']),
		check('defect_closed_whole', sql`(${t.closedAt} is null) = (${t.closedHow} is null)`)
	]
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
		version: integer('version').notNull().default(1)
	},
	(t) => [
		index('service_job_item').on(t.itemId),
		uniqueIndex('service_job_one_open')
			.on(t.itemId)
			.where(sql`${t.releasedAt} is null and ${t.supersededAt} is null`),
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
