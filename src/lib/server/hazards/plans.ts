import { and, asc, count, desc, eq, inArray, isNull } from 'drizzle-orm';
import type { HazardFacts } from '../../../core/hazards/facts.ts';
import { decide } from '../../../core/hazards/ladder.ts';
import { planStatus } from '../../../core/hazards/plan-status.ts';
import { anotherApproves } from '../../../core/people/two-people.ts';
import type { Connection } from '../db/client.ts';
import { hazardEdition, hazardPlan, place, planFlag, user } from '../db/schema/index.ts';
import { type Actor, type Context, type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { may } from '../kernel/permissions.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorised } from '../people/authorisations.ts';
import { libraryFor } from './substances.ts';

export interface PlanInput {
	requestId: string;
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
export async function listPlans(context: Reader) {
	const { db } = context;
	const asOf = todayOf(context);
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
export async function planPage(context: Reader, id: string) {
	const { db } = context;
	const [row] = await db
		.select({ plan: hazardPlan, place: place.name, by: user.name })
		.from(hazardPlan)
		.innerJoin(place, eq(place.id, hazardPlan.placeId))
		.innerJoin(user, eq(user.id, hazardPlan.changedBy))
		.where(eq(hazardPlan.id, id));
	if (!row) throw new Refusal('not found', 'There is no such hazard plan.');
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
	const asOf = todayOf(context);
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

/**
 * Only a supervisor keeps a limit that is laxer than the published one.
 * @throws Refusal at the contaminant whose reason was added or changed by somebody else
 */
function refuseLaxer(role: Actor['role'], facts: HazardFacts, held?: HazardFacts): void {
	if (may(role, 'approve plans')) return;
	const before = new Set(
		held?.contaminants.map((c) => JSON.stringify([c.name, c.limit, c.limitReason]))
	);
	facts.contaminants.forEach((c, i) => {
		if (!c.limitReason || before.has(JSON.stringify([c.name, c.limit, c.limitReason]))) return;
		throw new Refusal(
			'forbidden',
			`${c.name}: only a supervisor keeps a limit that is laxer than the published one.`,
			`facts.contaminants[${i}].limitReason`
		);
	});
}

/**
 * Saves a plan; a new one where the version is 0. What the core cannot judge is refused with its place.
 * @returns the version that is now in force
 */
export function savePlan(context: Context, input: PlanInput): Promise<number> {
	const { requestId, ...asked } = input;
	return write(context, 'plan', { id: requestId, content: asked }, async (at) => {
		const { tx } = at;
		const decision = await decideHere(tx, input.facts);
		const [held] = await tx
			.select({ plan: hazardPlan, by: user.name })
			.from(hazardPlan)
			.innerJoin(user, eq(user.id, hazardPlan.changedBy))
			.where(eq(hazardPlan.id, input.id))
			.for('update', { of: hazardPlan });
		refuseLaxer(at.actor.role, input.facts, held?.plan.facts);
		const content = { task: input.task, placeId: input.placeId, facts: input.facts };
		const change = { ...content, changedBy: at.actor.id, changedAt: at.now };
		const version = (held?.plan.version ?? 0) + 1;
		if (!held)
			await tx.insert(hazardPlan).values({
				id: input.id,
				...change,
				createdBy: at.actor.id,
				version,
				copiedFrom: input.copiedFrom ?? null
			});
		else if (held.plan.version !== input.version)
			throw new Refusal(
				'conflict',
				`${held.by} changed this plan meanwhile (version ${held.plan.version}). Nothing was written over and what you typed is still here; load the plan again to see the change.`
			);
		else
			await tx
				.update(hazardPlan)
				.set({ ...change, version })
				.where(eq(hazardPlan.id, input.id));
		at.record(held ? 'plan.changed' : 'plan.made', {
			of: input.id,
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
export function approvePlan(context: Context, input: Approval): Promise<{ edition: number }> {
	return write(context, 'approve plans', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		await requireAuthorised(at, { job: 'approve plans', family: null, modelId: null });
		if (input.expiresOn < at.today)
			throw new Refusal('invalid', 'The day on which it lapses lies in the past.', 'expiresOn');
		if (input.reviewOn > input.expiresOn)
			throw new Refusal(
				'invalid',
				'The review comes before the day on which it lapses.',
				'reviewOn'
			);
		const [row] = await tx
			.select({ plan: hazardPlan, place: place.name })
			.from(hazardPlan)
			.innerJoin(place, eq(place.id, hazardPlan.placeId))
			.where(eq(hazardPlan.id, input.planId))
			.for('update', { of: hazardPlan });
		if (!row) throw new Refusal('not found', 'There is no such hazard plan.');
		if (row.plan.version !== input.version)
			throw new Refusal(
				'conflict',
				`The plan was changed while you looked at it (version ${row.plan.version}, you saw ${input.version}). Look again before you approve.`
			);
		if (anotherApproves(at.site, row.plan, at.actor.id))
			throw new Refusal(
				'forbidden',
				'You wrote this plan yourself. Somebody else approves it: ask another supervisor.'
			);
		const [last] = await tx
			.select()
			.from(hazardEdition)
			.where(eq(hazardEdition.planId, input.planId))
			.orderBy(desc(hazardEdition.edition))
			.limit(1);
		if (last && last.version === row.plan.version && last.expiresOn >= input.expiresOn)
			throw new Refusal('conflict', `Edition ${last.edition} holds exactly this already.`);
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
			approvedBy: at.actor.id,
			approvedAt: at.now
		});
		at.record('plan.approved', {
			of: input.planId,
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
	at: Work,
	flag: { id: string; planId: string; pairId: string; text: string }
): Promise<void> {
	await at.tx
		.insert(planFlag)
		.values({ ...flag, raisedBy: at.actor.id, raisedAt: at.now })
		.onConflictDoNothing();
	at.record('plan.flagged', {
		of: flag.planId,
		payload: { pair: flag.pairId, text: flag.text }
	});
}

/** A supervisor has looked into a flag and says what came of it. */
export function clearFlag(
	context: Context,
	input: { requestId: string; id: string; why: string }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'approve plans', { id: requestId, content }, async (at) => {
		const { tx } = at;
		if (!input.why.trim())
			throw new Refusal('invalid', 'Say what was found and what was changed.', 'why');
		const [flag] = await tx.select().from(planFlag).where(eq(planFlag.id, input.id)).for('update');
		if (!flag) throw new Refusal('not found', 'There is no such report.');
		if (flag.clearedAt) return;
		await tx
			.update(planFlag)
			.set({
				clearedBy: at.actor.id,
				clearedAt: at.now,
				clearedWhy: input.why.trim()
			})
			.where(eq(planFlag.id, input.id));
		at.record('plan.flag-cleared', {
			of: flag.planId,
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
export const listPlaces = (db: Connection) =>
	db.select().from(place).where(isNull(place.closedOn)).orderBy(asc(place.name));
