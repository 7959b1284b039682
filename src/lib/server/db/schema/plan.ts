import { sql } from 'drizzle-orm';
import {
	check,
	date,
	doublePrecision,
	index,
	integer,
	jsonb,
	pgTable,
	text,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { PlanChange } from '../../../../core/plan/difference.ts';
import type { PlanJob } from '../../../../core/plan/jobs.ts';
import type { RelaxedFloor } from '../../../../core/plan/site-problem.ts';
import type { PlanFigures } from '../../../../core/plan/level/when-due.ts';
import { user } from './accounts.ts';
import { by, moment, oneOf } from './columns.ts';
import { place } from './register.ts';

/** Minutes of plan work that somebody has on each weekday; without a row a technician has those of the site. */
export const workHours = pgTable(
	'work_hours',
	{
		userId: text('user_id')
			.primaryKey()
			.references(() => user.id, { onDelete: 'cascade' }),
		/** Monday first. */
		minutes: integer('minutes').array().notNull(),
		version: integer('version').notNull().default(1)
	},
	(t) => [
		check(
			'work_hours_week',
			sql`cardinality(${t.minutes}) = 7 and 0 <= all (${t.minutes}) and 1440 >= all (${t.minutes})`
		)
	]
);

/** A day on which somebody, or nobody, works on the plan. */
export const barredDay = pgTable(
	'barred_day',
	{
		id: uuid('id').primaryKey(),
		day: date('day').notNull(),
		/** Whose; null: everybody's. */
		userId: text('user_id').references(() => user.id, { onDelete: 'cascade' }),
		why: text('why').notNull().default(''),
		barredBy: by('barred_by'),
		barredAt: moment('barred_at').notNull()
	},
	(t) => [uniqueIndex('barred_day_once').on(t.day, sql`coalesce(${t.userId}, '')`)]
);

/** A job that somebody put on a day; it stays there. */
export const planPin = pgTable('plan_pin', {
	jobKey: text('job_key').primaryKey(),
	day: date('day').notNull(),
	userId: text('user_id')
		.notNull()
		.references(() => user.id, { onDelete: 'cascade' }),
	pinnedBy: by('pinned_by'),
	pinnedAt: moment('pinned_at').notNull()
});

/** A levelled plan and how it differs from the one before; the last is in force. Append-only. */
export const workPlan = pgTable(
	'work_plan',
	{
		id: uuid('id').primaryKey(),
		/** Counted up, so that two that are made at once are told. */
		number: integer('number').notNull().unique(),
		startsOn: date('starts_on').notNull(),
		endsOn: date('ends_on').notNull(),
		/** How it came: anew, moved only what must, in the evening. */
		way: text('way').$type<PlanWay>().notNull(),
		jobs: integer('jobs').notNull(),
		peakMin: doublePrecision('peak_min').notNull(),
		boundMin: doublePrecision('bound_min').notNull(),
		/** What it costs, and what doing each when it is due would. */
		figures: jsonb('figures').$type<{ levelled: PlanFigures; whenDue: PlanFigures }>().notNull(),
		/** Floors that it keeps lower than the site asks for. */
		relaxed: jsonb('relaxed').$type<RelaxedFloor[]>().notNull().default([]),
		changes: jsonb('changes').$type<PlanChange[]>().notNull(),
		/** Null: Grevan itself, in the evening. */
		madeBy: text('made_by').references(() => user.id),
		madeAt: moment('made_at').notNull()
	},
	(t) => [oneOf('work_plan_way', t.way, ['anew', 'moved', 'evening'])]
);
export type PlanWay = 'anew' | 'moved' | 'evening';

/** The jobs of the plan in force, each on its day; those of the plan before make room for them. */
export const plannedJob = pgTable(
	'planned_job',
	{
		jobKey: text('job_key').primaryKey(),
		planId: uuid('plan_id')
			.notNull()
			.references(() => workPlan.id),
		day: date('day').notNull(),
		userId: text('user_id')
			.notNull()
			.references(() => user.id, { onDelete: 'cascade' }),
		placeId: uuid('place_id').references(() => place.id),
		itemId: uuid('item_id'),
		job: jsonb('job').$type<PlanJob>().notNull()
	},
	(t) => [
		index('planned_job_day').on(t.day, t.userId),
		index('planned_job_place').on(t.placeId, t.day),
		index('planned_job_item').on(t.itemId)
	]
);

/** A calendar that may be read with a token and nothing else: the days of a person or of a place. */
export const planFeed = pgTable(
	'plan_feed',
	{
		id: uuid('id').primaryKey(),
		/** Hash of the token. */
		hash: text('hash').notNull().unique(),
		/** Whose days; null: those of a place. */
		userId: text('user_id').references(() => user.id, { onDelete: 'cascade' }),
		placeId: uuid('place_id').references(() => place.id),
		madeBy: by('made_by'),
		madeAt: moment('made_at').notNull(),
		readAt: moment('read_at'),
		revokedAt: moment('revoked_at')
	},
	(t) => [
		index('plan_feed_user').on(t.userId),
		check('plan_feed_one', sql`num_nonnulls(${t.userId}, ${t.placeId}) = 1`)
	]
);
