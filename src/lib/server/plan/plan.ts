import { and, eq, isNull } from 'drizzle-orm';
import { randomUUID } from 'node:crypto';
import { type Day, daysBetween, readable } from '../../../core/plan/calendar.ts';
import { differenceOf } from '../../../core/plan/difference.ts';
import { faultsOfPlan } from '../../../core/plan/level/check.ts';
import { begun } from '../../../core/plan/level/level.ts';
import { bothFigures, type SitePlan, slotsOf } from '../../../core/plan/plan-site.ts';
import {
	type Placed,
	planDays,
	problemOfSite,
	type RelaxedFloor,
	type SitePlanFacts
} from '../../../core/plan/site-problem.ts';
import type { Connection } from '../db/client.ts';
import { lockPlans, planInForce, plannedJobs } from '../db/queries/plan.ts';
import { barredDay, plannedJob, planPin, user, workPlan } from '../db/schema/index.ts';
import type { PlanWay } from '../db/schema/plan.ts';
import { heavy } from '../jobs/heavy.ts';
import { type Context, type Reader, todayOf, type Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeAfter, writeUnattended } from '../kernel/write.ts';
import { planFacts, seenBy } from './facts.ts';

/** Rows of one statement. */
const CHUNK = 500;
/** Longest that a plan may take on a thread of its own, ms; the site of 20,000 jobs takes some seconds. Site default. */
const SOLVE_MS = 60_000;
/** A plan that is older speaks of days that have passed. Site default. */
const STALE_DAYS = 14;

/** Everything that the page of the plan shows. */
export async function planPage(context: Context) {
	const [facts, inForce] = await Promise.all([planFacts(context), planInForce(context.db)]);
	const today = todayOf(context);
	return {
		facts: seenBy(context.actor.role, facts),
		inForce: inForce && {
			number: inForce.plan.number,
			way: inForce.plan.way,
			startsOn: inForce.plan.startsOn,
			endsOn: inForce.plan.endsOn,
			madeAt: inForce.plan.madeAt,
			by: inForce.by,
			changes: inForce.plan.changes,
			figures: inForce.plan.figures,
			peakMin: inForce.plan.peakMin,
			boundMin: inForce.plan.boundMin,
			/** So old that it should be made anew. */
			stale: daysBetween(inForce.plan.startsOn, today) > STALE_DAYS
		}
	};
}

export interface TakePlan {
	requestId: string;
	/** Number of the plan that was in force when it was made; 0: none. */
	since: number;
	placed: Placed[];
	/** Floors that it keeps lower. */
	relaxed: RelaxedFloor[];
	way: PlanWay;
}

/**
 * Puts a plan in force that was made on a device. It is checked anew against what the record says now: nobody's word is
 * taken for it.
 * @throws Refusal where it does not hold, or another plan was put in force meanwhile
 */
export function takePlan(context: Context, input: TakePlan): Promise<{ number: number }> {
	const { requestId, ...content } = input;
	return write(context, 'keep the plan', { id: requestId, content }, async (at) => {
		const facts = await planFacts(readerOf(context, at));
		return keepPlan(at, { ...facts, relaxed: input.relaxed }, input.placed, input.way, input.since);
	});
}

const readerOf = (context: Unattended, { tx, now }: Pick<Work, 'tx' | 'now'>): Reader => ({
	...context,
	db: tx,
	now: () => now
});

/** Something about the plan that somebody wants otherwise. */
export type PlanWish =
	| { kind: 'again' }
	| { kind: 'pin'; key: string; day: Day; userId: string }
	| { kind: 'unpin'; key: string }
	| { kind: 'bar'; day: Day; userId: string | null; why: string }
	| { kind: 'open'; day: Day; userId: string | null };

export interface ChangePlan {
	requestId: string;
	since: number;
	wish: PlanWish;
	/** It is wanted though jobs lose their place by it. */
	nevertheless: boolean;
}

/**
 * Pins a job, bars a day or undoes either, and plans again from where the plan stands: only what must moves.
 * @throws Refusal where jobs would lose their place by it, with the ways out; or where the plan was changed meanwhile
 */
export function changePlan(context: Context, input: ChangePlan): Promise<{ number: number }> {
	const { requestId, ...content } = input;
	return writeAfter(
		context,
		'keep the plan',
		{ id: requestId, content },
		async () => {
			const before = await planFacts(context);
			const facts = wished(before, input.wish);
			const plan = await heavy('plan site', { facts, warm: true }, SOLVE_MS);
			if (!input.nevertheless && input.wish.kind !== 'again') refuseLost(before, facts, plan);
			return { facts, plan };
		},
		async (at, { facts, plan }) => {
			await fulfil(at, facts, input.wish);
			return keepPlan(at, { ...facts, relaxed: plan.relaxed }, plan.placed, 'moved', input.since);
		}
	);
}

/** The facts with a wish fulfilled. @throws Refusal where it names what is not there */
function wished(facts: SitePlanFacts, wish: PlanWish): SitePlanFacts {
	switch (wish.kind) {
		case 'again':
			return facts;
		case 'unpin':
			return { ...facts, pins: facts.pins.filter(({ key }) => key !== wish.key) };
		case 'pin': {
			const { key, day, userId } = wish;
			if (!facts.jobs.some((job) => job.key === key))
				throw new Refusal('not found', 'This job is done or gone meanwhile. Load the plan again.');
			if (!planDays(facts).includes(day))
				throw new Refusal(
					'invalid',
					`Nobody works on ${readable(day)}, or the plan does not reach it.`,
					'day'
				);
			if (!facts.workers.some(({ id }) => id === userId))
				throw new Refusal('invalid', 'Choose somebody who works on the plan.', 'userId');
			return {
				...facts,
				pins: [...facts.pins.filter((pin) => pin.key !== key), { key, day, userId }]
			};
		}
		case 'bar': {
			const { day, userId, why } = wish;
			if (!planDays(facts).includes(day))
				throw new Refusal('invalid', `Nobody works on ${readable(day)} anyway.`, 'day');
			return { ...facts, barred: [...facts.barred, { day, userId, why }] };
		}
		case 'open':
			return {
				...facts,
				barred: facts.barred.filter(({ day, userId }) => day !== wish.day || userId !== wish.userId)
			};
	}
}

/** Refuses what takes the place from jobs that have one, and says what would help. */
function refuseLost(before: SitePlanFacts, facts: SitePlanFacts, plan: SitePlan): void {
	const had = new Set(before.was.map(({ key }) => key));
	const lost = plan.lost.filter((key) => had.has(key) || facts.pins.some((pin) => pin.key === key));
	if (lost.length === 0) return;
	const tags = lost.map((key) => facts.jobs.find((job) => job.key === key)?.tag ?? '');
	const ways = plan.relax.map(({ change }) => change).join(' ');
	throw new Refusal(
		'conflict',
		`It does not fit: ${tags.slice(0, 5).join(', ')}${tags.length > 5 ? ` and ${tags.length - 5} more` : ''} would find no day. ${ways ? `What would help: ${ways}` : ''}`.trim(),
		'wish'
	);
}

async function fulfil(at: Work, facts: SitePlanFacts, wish: PlanWish): Promise<void> {
	const { tx, now, actor, record } = at;
	const job = 'key' in wish ? facts.jobs.find(({ key }) => key === wish.key) : undefined;
	const nameOf = (id: string | null) =>
		id === null ? null : (facts.workers.find((one) => one.id === id)?.name ?? '');
	const of = 'plan';
	if (wish.kind === 'pin') {
		const { key, day, userId } = wish;
		await tx
			.insert(planPin)
			.values({ jobKey: key, day, userId, pinnedBy: actor.id, pinnedAt: now })
			.onConflictDoUpdate({
				target: planPin.jobKey,
				set: { day, userId, pinnedBy: actor.id, pinnedAt: now }
			});
		const { tag, title } = job ?? { tag: key, title: '' };
		record('work-plan.pinned', { of, payload: { tag, title, day, person: nameOf(userId) ?? '' } });
	}
	if (wish.kind === 'unpin') {
		const gone = await tx.delete(planPin).where(eq(planPin.jobKey, wish.key)).returning();
		if (gone.length)
			record('work-plan.unpinned', {
				of,
				payload: { tag: job?.tag ?? wish.key, title: job?.title ?? '' }
			});
	}
	if (wish.kind === 'bar') {
		const { day, userId, why } = wish;
		if (userId !== null) await requireAccount(tx, userId);
		await tx
			.insert(barredDay)
			.values({ id: randomUUID(), day, userId, why, barredBy: actor.id, barredAt: now })
			.onConflictDoNothing();
		record('work-plan.day-barred', { of, payload: { day, person: nameOf(userId), why } });
	}
	if (wish.kind === 'open') {
		const { day, userId } = wish;
		await tx
			.delete(barredDay)
			.where(
				and(
					eq(barredDay.day, day),
					userId === null ? isNull(barredDay.userId) : eq(barredDay.userId, userId)
				)
			);
		record('work-plan.day-opened', { of, payload: { day, person: nameOf(userId) } });
	}
}

async function requireAccount(tx: Connection, userId: string): Promise<void> {
	const [found] = await tx.select({ id: user.id }).from(user).where(eq(user.id, userId));
	if (!found) throw new Refusal('invalid', 'Choose whose day it is.', 'userId');
}

/** The plan of an evening: what must moves, and what is new finds its place. @returns null where there is no plan to renew */
export async function renewPlan(context: Unattended): Promise<{ number: number } | null> {
	const before = await planInForce(context.db);
	if (!before) return null;
	const facts = await planFacts(context);
	const plan = await heavy('plan site', { facts, warm: true }, SOLVE_MS);
	return writeUnattended(context, null, (at) =>
		keepPlan(at, { ...facts, relaxed: plan.relaxed }, plan.placed, 'evening', before.plan.number)
	);
}

/** Puts a plan in force, where it holds and nobody was quicker. */
export async function keepPlan(
	at: Pick<Work, 'tx' | 'now' | 'actor' | 'record'>,
	facts: SitePlanFacts,
	placed: readonly Placed[],
	way: PlanWay,
	since: number
): Promise<{ number: number }> {
	const { tx, now, record } = at;
	// One at a time: the second waits here, and then finds another number.
	await lockPlans(tx);
	const last = await planInForce(tx);
	if ((last?.plan.number ?? 0) !== since)
		throw new Refusal(
			'conflict',
			`The plan was changed meanwhile${last?.by ? ` by ${last.by}` : ''}. Load it again, then plan from there.`
		);
	const problem = problemOfSite(facts);
	const slots = slotsOf(facts, problem, placed);
	const faults = faultsOfPlan(problem, slots);
	if (faults.length > 0)
		throw new Refusal(
			'conflict',
			`The plan does not hold any more: ${faults.slice(0, 3).join(' ')}${faults.length > 3 ? ` And ${faults.length - 3} more.` : ''} Plan again.`
		);
	const figures = bothFigures(facts, slots);
	const byKey = new Map(facts.jobs.map((job) => [job.key, job]));
	const own = placed.flatMap((one) => {
		const job = byKey.get(one.key);
		return job ? [{ ...one, job }] : [];
	});
	const before = (await plannedJobs(tx)).map(({ jobKey, day, userId, job }) => ({
		key: jobKey,
		day,
		userId,
		tag: job.tag,
		title: job.title
	}));
	const changes = differenceOf(
		before,
		own.map(({ key, day, userId, job: { tag, title } }) => ({ key, day, userId, tag, title }))
	);
	const number = since + 1;
	const id = randomUUID();
	const boundMin = Math.min(figures.levelled.peakMin, begun(problem).bound.minutes);
	await tx.insert(workPlan).values({
		id,
		number,
		startsOn: facts.from,
		endsOn: facts.until,
		way,
		jobs: own.length,
		peakMin: figures.levelled.peakMin,
		boundMin,
		figures,
		relaxed: [...(facts.relaxed ?? [])],
		changes,
		madeBy: way === 'evening' ? null : at.actor.id,
		madeAt: now
	});
	await tx.delete(plannedJob);
	for (let i = 0; i < own.length; i += CHUNK)
		await tx.insert(plannedJob).values(
			own.slice(i, i + CHUNK).map(({ key, day, userId, job }) => ({
				jobKey: key,
				planId: id,
				day,
				userId,
				placeId: job.placeId,
				itemId: job.item,
				job
			}))
		);
	record('work-plan.kept', {
		of: 'plan',
		payload: {
			number,
			way,
			jobs: own.length,
			changes: changes.length,
			floors: (facts.relaxed ?? []).map(
				({ place, kind, from, to }) => `${kind} at ${place}, ${to} for ${from}`
			),
			peakMin: figures.levelled.peakMin,
			boundMin
		}
	});
	return { number };
}

/** Days that are lived through to see what levelling spares. */
const YEAR_DAYS = 365;

/** Everything that a year is lived through with. */
export const yearFacts = async (context: Context): Promise<SitePlanFacts> =>
	seenBy(context.actor.role, await planFacts(context, YEAR_DAYS));
