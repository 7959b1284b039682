import { asc, desc, eq } from 'drizzle-orm';
import type { HazardFacts } from '../../core/hazards/facts.ts';
import { decide } from '../../core/hazards/ladder.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { hazardPlan, place, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';

export interface PlanInput {
	id: string;
	task: string;
	placeId: string;
	facts: HazardFacts;
	/** 0 for a new plan; else the version that the page was loaded with. */
	version: number;
}

/** All plans, newest change first, with what each comes to. */
export async function listPlans(db: Connection) {
	const rows = await db
		.select({ plan: hazardPlan, place: place.name, by: user.name })
		.from(hazardPlan)
		.innerJoin(place, eq(place.id, hazardPlan.placeId))
		.innerJoin(user, eq(user.id, hazardPlan.changedBy))
		.orderBy(desc(hazardPlan.changedAt))
		.limit(200);
	return rows.map((row) => ({ ...row, decision: decide(row.plan.facts) }));
}

/** A plan with its decision. */
export async function planPage(db: Connection, id: string) {
	const [row] = await db
		.select({ plan: hazardPlan, place: place.name, by: user.name })
		.from(hazardPlan)
		.innerJoin(place, eq(place.id, hazardPlan.placeId))
		.innerJoin(user, eq(user.id, hazardPlan.changedBy))
		.where(eq(hazardPlan.id, id));
	if (!row) throw new Fault('not found', 'There is no such hazard plan.');
	return { ...row, decision: decide(row.plan.facts) };
}

/**
 * Saves a plan; a new one where the version is 0. What the core cannot judge is refused with its place.
 * @returns the version that is now in force
 */
export async function savePlan(context: Context, input: PlanInput): Promise<number> {
	requireRole(context.actor, 'plan');
	const decision = decide(input.facts);
	return inTransaction(context, async (tx) => {
		const [held] = await tx
			.select({ plan: hazardPlan, by: user.name })
			.from(hazardPlan)
			.innerJoin(user, eq(user.id, hazardPlan.changedBy))
			.where(eq(hazardPlan.id, input.id))
			.for('update', { of: hazardPlan });
		const content = { task: input.task, placeId: input.placeId, facts: input.facts };
		const change = { ...content, changedBy: context.actor.id, changedAt: context.now() };
		if (!held) {
			const made = await tx
				.insert(hazardPlan)
				.values({ id: input.id, ...change, createdBy: context.actor.id, version: 1 })
				.onConflictDoNothing()
				.returning({ id: hazardPlan.id });
			// A retry that raced its first try.
			if (made.length === 0) return 1;
		} else if (held.plan.version !== input.version) {
			// A retried first save finds its own plan already there.
			if (input.version === 0 && held.plan.changedBy === context.actor.id) return held.plan.version;
			throw new Fault(
				'conflict',
				`${held.by} changed this plan meanwhile (version ${held.plan.version}). Nothing was written over and what you typed is still here; load the plan again to see the change.`
			);
		} else {
			await tx
				.update(hazardPlan)
				.set({ ...change, version: held.plan.version + 1 })
				.where(eq(hazardPlan.id, input.id));
		}
		const version = (held?.plan.version ?? 0) + 1;
		await record(tx, context.actor.id, {
			action: held ? 'plan.changed' : 'plan.made',
			subject: `plan:${input.id}`,
			payload: { ...content, version, outcome: decision.outcome }
		});
		return version;
	});
}

/** Places by name. */
export const listPlaces = (db: Connection) => db.select().from(place).orderBy(asc(place.name));
