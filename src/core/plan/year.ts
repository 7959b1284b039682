import { type Day, plusDays } from './calendar.ts';
import type { PlanJob } from './jobs.ts';
import { type PlanFigures, figuresOf, whenDue } from './level/when-due.ts';
import { planSite, slotsOf } from './plan-site.ts';
import { type Placed, problemOfSite, type SitePlanFacts } from './site-problem.ts';

/** What a year costs, levelled and with each job done when it is due. */
export interface YearFigures {
	jobs: { levelled: number; whenDue: number };
	levelled: PlanFigures;
	whenDue: PlanFigures;
}

/** Days of which the plan is made at a time, and how far it looks beyond them. */
const STEP_DAYS = 14;
const AHEAD_DAYS = 28;

/**
 * Lives through a horizon twice: with a plan that is levelled every two weeks, and doing each job on its last day. What
 * falls due again counts from the day on which it was done, in both.
 * @param facts with jobs of the whole horizon; of those that fall due again the first
 * @returns how far it is, in parts of the whole, and at the end the figures
 */
export function* livedYear(facts: SitePlanFacts): Generator<number, YearFigures> {
	const first = facts.jobs.filter(({ again }) => again === 0);
	const levelled: Done[] = [];
	let open = first.map((job) => ({ ...job }));
	let was: Placed[] = [];
	for (let from = facts.from; from <= facts.until; from = plusDays(from, STEP_DAYS)) {
		const end = plusDays(from, STEP_DAYS);
		const until = min(plusDays(end, AHEAD_DAYS), facts.until);
		const here = open.filter(({ latest }) => latest <= until);
		const now: SitePlanFacts = {
			...facts,
			from,
			until,
			jobs: here.map((job) => ({ ...job, earliest: max(job.earliest, from) })),
			was,
			pins: [],
			floors: facts.floors.map((floor) => ({
				...floor,
				back: floor.back.filter(({ day }) => day > from)
			}))
		};
		const plan = planSite(now, { quick: true });
		const at = new Map(plan.placed.map((one) => [one.key, one]));
		open = open.flatMap((job) => {
			const one = at.get(job.key);
			if (!one || one.day >= end) return [job];
			levelled.push({ job, ...one });
			return next(job, one.day, facts.until);
		});
		was = plan.placed.filter(({ day }) => day >= end);
		yield Math.min(1, (Date.parse(end) - Date.parse(facts.from)) / span(facts));
	}
	const due = dueOnes(facts, first);
	return {
		jobs: { levelled: levelled.length, whenDue: due.length },
		levelled: costOf(facts, levelled),
		whenDue: costOf(facts, due)
	};
}

/** A job that was done: when, by whom, and by when it should have been. */
interface Done extends Placed {
	job: PlanJob;
}

/** The job as it falls due again after it was done on a day; none where it does not, or not within the horizon. */
function next(job: PlanJob, on: Day, until: Day): PlanJob[] {
	if (!job.everyDays) return [];
	const latest = plusDays(on, job.everyDays);
	if (latest > until) return [];
	const opens = plusDays(latest, -(job.windowDays ?? 0));
	return [
		{
			...job,
			key: `${job.key}+`,
			again: job.again + 1,
			earliest: max(opens, plusDays(on, 1)),
			latest,
			awayDays: Math.max(1, job.awayDays)
		}
	];
}

/** Each job on the last working day up to its last, and again from there. */
function dueOnes(facts: SitePlanFacts, first: readonly PlanJob[]): Done[] {
	const done: Done[] = [];
	let open = [...first];
	while (open.length > 0) {
		const now: SitePlanFacts = { ...facts, jobs: open, was: [], pins: [] };
		const problem = problemOfSite(now);
		const at = whenDue(problem);
		const n = problem.days.length;
		open = open.flatMap((job, i) => {
			const slot = at[i] ?? -1;
			if (slot < 0) return [];
			const day = problem.days[slot % n] ?? '';
			const userId = facts.workers[Math.floor(slot / n)]?.id ?? '';
			done.push({ job, key: job.key, day, userId });
			return next(job, day, facts.until);
		});
	}
	return done;
}

function costOf(facts: SitePlanFacts, done: readonly Done[]): PlanFigures {
	const all: SitePlanFacts = {
		...facts,
		jobs: done.map(({ job }) => job),
		was: [],
		pins: [],
		relaxed: []
	};
	const problem = problemOfSite(all);
	return figuresOf(problem, slotsOf(all, problem, done));
}

const span = ({ from, until }: SitePlanFacts): number =>
	Math.max(1, Date.parse(until) - Date.parse(from));
const min = (a: Day, b: Day): Day => (a < b ? a : b);
const max = (a: Day, b: Day): Day => (a > b ? a : b);
