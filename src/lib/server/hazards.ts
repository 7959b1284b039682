import { and, asc, count, desc, eq, inArray, isNull } from 'drizzle-orm';
import type { HazardFacts } from '../../core/hazards/facts.ts';
import { decide } from '../../core/hazards/ladder.ts';
import { planStatus } from '../../core/hazards/plan-status.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { hazardEdition, hazardPlan, place, planFlag, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { dayAt, type Site } from './site.ts';
import { libraryFor } from './substances.ts';

export interface PlanInput {
	id: string;
	task: string;
	placeId: string;
	facts: HazardFacts;
	/** 0 for a new plan; else the version that the page was loaded with. */
	version: number;
	copiedFrom?: string | null | undefined;
}

const keysOf = (facts: HazardFacts) => facts.contaminants.map((c) => c.substance);

/** The decision on facts with the site's own and corrected substances. */
export async function decideHere(db: Connection, facts: HazardFacts) {
	return decide(facts, await libraryFor(db, keysOf(facts)));
}

/** All plans, newest change first, with what each comes to and where it stands. */
export async function listPlans(context: Pick<Context, 'db' | 'now'>, site: Site) {
	const { db } = context;
	const asOf = dayAt(context.now(), site.timeZone);
	const rows = await db
		.select({ plan: hazardPlan, place: place.name, by: user.name })
		.from(hazardPlan)
		.innerJoin(place, eq(place.id, hazardPlan.placeId))
		.innerJoin(user, eq(user.id, hazardPlan.changedBy))
		.orderBy(desc(hazardPlan.changedAt))
		.limit(200);
	const ids = rows.map((row) => row.plan.id);
	const [library, editions, flags] = await Promise.all([
		libraryFor(
			db,
			rows.flatMap((row) => keysOf(row.plan.facts))
		),
		newestEditions(db, ids),
		openFlagCounts(db, ids)
	]);
	return rows.map((row) => {
		const edition = editions.get(row.plan.id) ?? null;
		const openFlags = flags.get(row.plan.id) ?? 0;
		return {
			...row,
			decision: decide(row.plan.facts, library),
			status: planStatus({ version: row.plan.version, edition, openFlags }, asOf)
		};
	});
}

async function newestEditions(db: Connection, planIds: string[]) {
	if (planIds.length === 0) return new Map<string, typeof hazardEdition.$inferSelect>();
	const rows = await db
		.selectDistinctOn([hazardEdition.planId])
		.from(hazardEdition)
		.where(inArray(hazardEdition.planId, planIds))
		.orderBy(hazardEdition.planId, desc(hazardEdition.edition));
	return new Map(rows.map((row) => [row.planId, row]));
}

async function openFlagCounts(db: Connection, planIds: string[]) {
	if (planIds.length === 0) return new Map<string, number>();
	const rows = await db
		.select({ planId: planFlag.planId, n: count() })
		.from(planFlag)
		.where(and(inArray(planFlag.planId, planIds), isNull(planFlag.clearedAt)))
		.groupBy(planFlag.planId);
	return new Map(rows.map((row) => [row.planId, row.n]));
}

/** A plan with its decision, its newest edition, its standing and what speaks against it. */
export async function planPage(context: Pick<Context, 'db' | 'now'>, site: Site, id: string) {
	const { db } = context;
	const [row] = await db
		.select({ plan: hazardPlan, place: place.name, by: user.name })
		.from(hazardPlan)
		.innerJoin(place, eq(place.id, hazardPlan.placeId))
		.innerJoin(user, eq(user.id, hazardPlan.changedBy))
		.where(eq(hazardPlan.id, id));
	if (!row) throw new Fault('not found', 'There is no such hazard plan.');
	const [editions, flags] = await Promise.all([
		db
			.select({ edition: hazardEdition, by: user.name })
			.from(hazardEdition)
			.innerJoin(user, eq(user.id, hazardEdition.approvedBy))
			.where(eq(hazardEdition.planId, id))
			.orderBy(desc(hazardEdition.edition)),
		db
			.select({ flag: planFlag, by: user.name })
			.from(planFlag)
			.innerJoin(user, eq(user.id, planFlag.raisedBy))
			.where(eq(planFlag.planId, id))
			.orderBy(desc(planFlag.raisedAt))
	]);
	const asOf = dayAt(context.now(), site.timeZone);
	const newest = editions[0]?.edition ?? null;
	const openFlags = flags.filter(({ flag }) => flag.clearedAt === null);
	const status = planStatus(
		{ version: row.plan.version, edition: newest, openFlags: openFlags.length },
		asOf
	);
	// What is worked by: the approved edition while it holds, else the draft.
	const inForce = newest && status.outcome !== 'expired' ? newest.facts : row.plan.facts;
	return {
		...row,
		asOf,
		editions,
		flags,
		openFlags,
		status,
		inForce,
		decision: await decideHere(db, inForce)
	};
}

export type PlanPage = Awaited<ReturnType<typeof planPage>>;

/**
 * Saves a plan; a new one where the version is 0. What the core cannot judge is refused with its place.
 * @returns the version that is now in force
 */
export async function savePlan(context: Context, input: PlanInput): Promise<number> {
	requireRole(context.actor, 'plan');
	const decision = await decideHere(context.db, input.facts);
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
				.values({
					id: input.id,
					...change,
					createdBy: context.actor.id,
					version: 1,
					copiedFrom: input.copiedFrom ?? null
				})
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

export interface Approval {
	/** Made by the client, so that a double click approves once. */
	id: string;
	planId: string;
	/** The version that the supervisor saw. */
	version: number;
	reviewOn: string;
	expiresOn: string;
	note: string;
}

/** Approves a plan as it stands: a new edition, in force until it lapses. */
export async function approvePlan(
	context: Context,
	site: Site,
	input: Approval
): Promise<{ edition: number }> {
	requireRole(context.actor, 'approve plans');
	const asOf = dayAt(context.now(), site.timeZone);
	if (input.expiresOn < asOf)
		throw new Fault('invalid', 'The day on which it lapses lies in the past.', 'expiresOn');
	if (input.reviewOn > input.expiresOn)
		throw new Fault('invalid', 'The review comes before the day on which it lapses.', 'reviewOn');
	return inTransaction(context, async (tx) => {
		const [again] = await tx.select().from(hazardEdition).where(eq(hazardEdition.id, input.id));
		if (again) return { edition: again.edition };
		const [row] = await tx
			.select({ plan: hazardPlan, place: place.name })
			.from(hazardPlan)
			.innerJoin(place, eq(place.id, hazardPlan.placeId))
			.where(eq(hazardPlan.id, input.planId))
			.for('update', { of: hazardPlan });
		if (!row) throw new Fault('not found', 'There is no such hazard plan.');
		if (row.plan.version !== input.version)
			throw new Fault(
				'conflict',
				`The plan was changed while you looked at it (version ${row.plan.version}, you saw ${input.version}). Look again before you approve.`
			);
		const [last] = await tx
			.select()
			.from(hazardEdition)
			.where(eq(hazardEdition.planId, input.planId))
			.orderBy(desc(hazardEdition.edition))
			.limit(1);
		if (last && last.version === row.plan.version && last.expiresOn >= input.expiresOn)
			throw new Fault('conflict', `Edition ${last.edition} holds exactly this already.`);
		const decision = await decideHere(tx, row.plan.facts);
		const edition = (last?.edition ?? 0) + 1;
		await tx.insert(hazardEdition).values({
			id: input.id,
			planId: input.planId,
			edition,
			version: row.plan.version,
			task: row.plan.task,
			place: row.place,
			facts: row.plan.facts,
			outcome: decision.outcome,
			reviewOn: input.reviewOn,
			expiresOn: input.expiresOn,
			note: input.note,
			approvedBy: context.actor.id,
			approvedAt: context.now()
		});
		await record(tx, context.actor.id, {
			action: 'plan.approved',
			subject: `plan:${input.planId}`,
			payload: {
				task: row.plan.task,
				edition,
				version: row.plan.version,
				outcome: decision.outcome,
				reviewOn: input.reviewOn,
				expiresOn: input.expiresOn,
				note: input.note
			}
		});
		return { edition };
	});
}

/** Writes down that somebody reported something that speaks against a plan. */
export async function raiseFlag(
	tx: Connection,
	context: Context,
	flag: { id: string; planId: string; pairId: string; text: string }
): Promise<void> {
	await tx
		.insert(planFlag)
		.values({ ...flag, raisedBy: context.actor.id, raisedAt: context.now() })
		.onConflictDoNothing();
	await record(tx, context.actor.id, {
		action: 'plan.flagged',
		subject: `plan:${flag.planId}`,
		payload: { pair: flag.pairId, text: flag.text }
	});
}

/** A supervisor has looked into a flag and says what came of it. */
export async function clearFlag(
	context: Context,
	input: { id: string; why: string }
): Promise<void> {
	requireRole(context.actor, 'approve plans');
	if (!input.why.trim())
		throw new Fault('invalid', 'Say what was found and what was changed.', 'why');
	await inTransaction(context, async (tx) => {
		const [flag] = await tx.select().from(planFlag).where(eq(planFlag.id, input.id)).for('update');
		if (!flag) throw new Fault('not found', 'There is no such report.');
		if (flag.clearedAt) return;
		await tx
			.update(planFlag)
			.set({
				clearedBy: context.actor.id,
				clearedAt: context.now(),
				clearedWhy: input.why.trim()
			})
			.where(eq(planFlag.id, input.id));
		await record(tx, context.actor.id, {
			action: 'plan.flag-cleared',
			subject: `plan:${flag.planId}`,
			payload: { flag: flag.text, why: input.why.trim() }
		});
	});
}

/** Flags that nobody has looked into, for the shift sheet. */
export const openFlags = (db: Connection, limit: number) =>
	db
		.select({ flag: planFlag, task: hazardPlan.task, number: hazardPlan.number })
		.from(planFlag)
		.innerJoin(hazardPlan, eq(hazardPlan.id, planFlag.planId))
		.where(isNull(planFlag.clearedAt))
		.orderBy(asc(planFlag.raisedAt))
		.limit(limit);

/** Places by name. */
export const listPlaces = (db: Connection) => db.select().from(place).orderBy(asc(place.name));
