import { sql } from 'drizzle-orm';
import type { AnyPgColumn } from 'drizzle-orm/pg-core';
import {
	check,
	date,
	index,
	integer,
	jsonb,
	pgTable,
	text,
	timestamp,
	uniqueIndex,
	uuid
} from 'drizzle-orm/pg-core';
import type { HazardOutcome } from '../../../../core/hazards/decision.ts';
import type { HazardFacts } from '../../../../core/hazards/facts.ts';
import { user } from './accounts.ts';
import { oneOf } from './columns.ts';
import { place } from './register.ts';

export const hazardPlan = pgTable(
	'hazard_plan',
	{
		id: uuid('id').primaryKey(),
		number: integer('number').generatedAlwaysAsIdentity().unique(),
		task: text('task').notNull(),
		placeId: uuid('place_id')
			.notNull()
			.references(() => place.id),
		/** What was entered; the decision is computed from it, never stored as truth. */
		facts: jsonb('facts').$type<HazardFacts>().notNull(),
		createdBy: text('created_by')
			.notNull()
			.references(() => user.id),
		changedBy: text('changed_by')
			.notNull()
			.references(() => user.id),
		changedAt: timestamp('changed_at', { withTimezone: true }).notNull().defaultNow(),
		version: integer('version').notNull().default(1),
		/** The plan it was copied from. */
		copiedFrom: uuid('copied_from').references((): AnyPgColumn => hazardPlan.id)
	},
	(t) => [check('hazard_plan_named', sql`length(trim(${t.task})) > 0`)]
);

/** A plan as it was approved. Append-only; the newest is the one in force until it expires. */
export const hazardEdition = pgTable(
	'hazard_edition',
	{
		id: uuid('id').primaryKey(),
		planId: uuid('plan_id')
			.notNull()
			.references(() => hazardPlan.id),
		edition: integer('edition').notNull(),
		/** Version of the plan that was approved. */
		version: integer('version').notNull(),
		task: text('task').notNull(),
		place: text('place').notNull(),
		facts: jsonb('facts').$type<HazardFacts>().notNull(),
		/** The outcome as it was judged then. */
		outcome: text('outcome').notNull(),
		reviewOn: date('review_on').notNull(),
		expiresOn: date('expires_on').notNull(),
		note: text('note').notNull().default(''),
		approvedBy: text('approved_by')
			.notNull()
			.references(() => user.id),
		approvedAt: timestamp('approved_at', { withTimezone: true }).notNull()
	},
	(t) => [
		uniqueIndex('hazard_edition_once').on(t.planId, t.edition),
		oneOf<HazardOutcome>('hazard_edition_outcome', t.outcome, [
			'filter',
			'supplied air',
			'self-contained',
			'escape set',
			'stop'
		]),
		check('hazard_edition_dates', sql`${t.reviewOn} <= ${t.expiresOn}`)
	]
);

/** Something that speaks against a plan, until a supervisor has looked into it. */
export const planFlag = pgTable(
	'plan_flag',
	{
		id: uuid('id').primaryKey(),
		planId: uuid('plan_id')
			.notNull()
			.references(() => hazardPlan.id),
		/** The opened pair that gave rise to it. */
		pairId: uuid('pair_id'),
		text: text('text').notNull(),
		raisedBy: text('raised_by')
			.notNull()
			.references(() => user.id),
		raisedAt: timestamp('raised_at', { withTimezone: true }).notNull(),
		clearedBy: text('cleared_by').references(() => user.id),
		clearedAt: timestamp('cleared_at', { withTimezone: true }),
		clearedWhy: text('cleared_why')
	},
	(t) => [
		index('plan_flag_open').on(t.clearedAt),
		check(
			'plan_flag_cleared_whole',
			sql`(${t.clearedAt} is null) = (${t.clearedBy} is null) and (${t.clearedAt} is null) = (${t.clearedWhy} is null)`
		)
	]
);
