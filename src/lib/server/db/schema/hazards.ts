import { sql } from 'drizzle-orm';
import { check, integer, jsonb, pgTable, text, timestamp, uuid } from 'drizzle-orm/pg-core';
import type { HazardFacts } from '../../../../core/hazards/facts.ts';
import { user } from './accounts.ts';
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
		version: integer('version').notNull().default(1)
	},
	(t) => [check('hazard_plan_named', sql`length(trim(${t.task})) > 0`)]
);
