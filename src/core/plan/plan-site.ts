import { Board } from './level/board.ts';
import { levelling, type LevelOptions, type LevelPlan } from './level/level.ts';
import type { LevelProblem } from './level/problem.ts';
import { levelReasons } from './level/reasons.ts';
import { type PlanFigures, figuresOf, whenDue } from './level/when-due.ts';
import type { WayOut } from './level/ways-out.ts';
import type { Reason } from '../verdict.ts';
import { daysBetween } from './calendar.ts';
import {
	type Placed,
	problemOfSite,
	type RelaxedFloor,
	type SitePlanFacts
} from './site-problem.ts';

/** A plan of a site, by keys, days and people. */
export interface SitePlan {
	outcome: LevelPlan['outcome'];
	placed: Placed[];
	/** Keys of jobs that found no place, and of those that were late before it began. */
	lost: string[];
	late: string[];
	peakMin: number;
	boundMin: number;
	gap: number;
	proved: boolean;
	relax: WayOut[];
	/** Floors that no plan keeps whole: kept lower, so that the work is done at all. */
	relaxed: RelaxedFloor[];
	reasons: Reason[];
	figures: { levelled: PlanFigures; whenDue: PlanFigures };
}

/** How far it is, and the best so far. */
export interface SiteProgress {
	done: number;
	lost: number;
	peakMin: number;
	boundMin: number;
	placed: Placed[];
}

/**
 * Levels the work of a site, saying how far it is. Floors are hard; where jobs find no day because of one, it is lowered
 * last, by as little as helps and by name: what is never looked at would be ready no longer anyway.
 */
export function* planningSite(
	facts: SitePlanFacts,
	options: LevelOptions = {}
): Generator<SiteProgress, SitePlan> {
	// What the plan before gave up is asked for again when it is made anew.
	const asked = options.warm ? facts : { ...facts, relaxed: [] };
	const plan = yield* once(asked, options);
	const lower = plan.relax.find(({ jobs, floors }) => floors && jobs.length > 0)?.floors ?? [];
	if (lower.length === 0) return plan;
	const kept = (asked.relaxed ?? []).filter(
		(old) => !lower.some(({ place, kind }) => place === old.place && kind === old.kind)
	);
	// What helps certainly may be more than is needed: one less is tried first, then one more each time.
	for (let less = 1; ; less++) {
		const relaxed = lower.map(({ place, kind, to }): RelaxedFloor => {
			const floor = facts.floors.find((one) => one.place === place && one.kind === kind);
			const from = floor?.floor ?? to;
			return { place, kind, from, to: Math.max(to, Math.min(from, leastThere(floor)) - less) };
		});
		const last = relaxed.every(({ to }, i) => to === lower[i]?.to);
		const tried = yield* once({ ...asked, relaxed: [...kept, ...relaxed] }, options);
		if (last || tried.lost.length === 0) return tried;
	}
}

/** The least of a floor's kind that are there with nothing taken away by the plan. */
const leastThere = (floor: SitePlanFacts['floors'][number] | undefined): number =>
	floor ? floor.ready - floor.back.reduce((sum, { count }) => sum + count, 0) : 0;

function* once(facts: SitePlanFacts, options: LevelOptions): Generator<SiteProgress, SitePlan> {
	const problem = problemOfSite(facts);
	const steps = levelling(problem, options);
	for (let step = steps.next(); ; step = steps.next()) {
		if (step.done) return asSite(facts, problem, step.value);
		const { done, of, at, lost, peakMin, boundMin } = step.value;
		yield { done: done / of, lost, peakMin, boundMin, placed: placedAt(facts, problem, at) };
	}
}

/** The same, in one go. */
export function planSite(facts: SitePlanFacts, options?: LevelOptions): SitePlan {
	const steps = planningSite(facts, options);
	for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

function asSite(facts: SitePlanFacts, problem: LevelProblem, plan: LevelPlan): SitePlan {
	const { outcome, at, peakMin, boundMin, gap, proved, relax } = plan;
	const keys = (jobs: readonly number[]) => jobs.map((job) => facts.jobs[job]?.key ?? '');
	return {
		outcome,
		placed: placedAt(facts, problem, at),
		lost: keys(plan.lost),
		late: keys(plan.late),
		peakMin,
		boundMin,
		gap,
		proved,
		relax,
		relaxed: [...(facts.relaxed ?? [])],
		reasons: levelReasons(problem, plan),
		figures: bothFigures(facts, at)
	};
}

/** What a plan costs, beside doing each when it is due. */
export function bothFigures(facts: SitePlanFacts, at: ArrayLike<number>) {
	// Floors as the site asks for them, also where the plan keeps one lower.
	const problem = problemOfSite({ ...facts, relaxed: [] });
	const overdue = facts.jobs.map(({ latest }) => Math.max(0, daysBetween(latest, facts.from)));
	return {
		levelled: figuresOf(problem, at, overdue),
		whenDue: figuresOf(problem, whenDue(problem), overdue)
	};
}

/** Slots as days and people. */
export function placedAt(
	facts: Pick<SitePlanFacts, 'jobs' | 'workers'>,
	{ days }: Pick<LevelProblem, 'days'>,
	at: ArrayLike<number>
): Placed[] {
	return facts.jobs.flatMap(({ key }, job) => {
		const slot = at[job] ?? -1;
		if (slot < 0) return [];
		const [worker, day] = [Math.floor(slot / days.length), slot % days.length];
		return [{ key, day: days[day] ?? '', userId: facts.workers[worker]?.id ?? '' }];
	});
}

/** Days and people as slots, in the order of the jobs; -1 where one stands nowhere. */
export function slotsOf(
	facts: Pick<SitePlanFacts, 'jobs' | 'workers'>,
	{ days }: Pick<LevelProblem, 'days'>,
	placed: readonly Placed[]
): Int32Array {
	const dayAt = new Map(days.map((day, i) => [day, i]));
	const workerAt = new Map(facts.workers.map(({ id }, i) => [id, i]));
	const byKey = new Map(placed.map((one) => [one.key, one]));
	return Int32Array.from(facts.jobs, ({ key }) => {
		const one = byKey.get(key);
		const [day, worker] = [dayAt.get(one?.day ?? ''), workerAt.get(one?.userId ?? '')];
		return day === undefined || worker === undefined ? -1 : worker * days.length + day;
	});
}

/** How many of a floor's kind are ready on each day. */
export interface ReadyCurve {
	place: string;
	kind: string;
	floor: number;
	ready: number[];
}

/** What is ready on each day under a plan, floor by floor as the site asks for it. */
export function readyCurves(
	facts: Pick<SitePlanFacts, 'floors'>,
	problem: LevelProblem,
	at: ArrayLike<number>
): ReadyCurve[] {
	const board = new Board(problem);
	board.copy(at);
	const n = problem.days.length;
	return problem.floors.map(({ place, kind, floor }, group) => ({
		place,
		kind,
		floor: facts.floors[group]?.floor ?? floor,
		ready: problem.days.map((_, day) => floor + (board.spare[group * n + day] ?? 0))
	}));
}
