import { type WorkCalendar, offBecause } from '../site/calendar.ts';
import { type Day, plusDays } from './calendar.ts';
import type { PlanJob } from './jobs.ts';
import { windowIn } from './level/asked.ts';
import type { LevelFloor, LevelJob, LevelProblem, Slot } from './level/problem.ts';

/** Somebody who does the work of the plan. */
export interface PlanWorker {
	id: string;
	name: string;
	/** Minutes by weekday, Monday first. */
	minutes: readonly number[];
}

/** A day on which somebody, or nobody at all, works. */
export interface Barred {
	day: Day;
	/** Whose; null: everybody's. */
	userId: string | null;
	why: string;
}

/** Where a job was put, by name. */
export interface Placed {
	key: string;
	day: Day;
	userId: string;
}

/** Everything that a plan of a site is made from; what the worker is given. */
export interface SitePlanFacts {
	/** First day, and last. */
	from: Day;
	until: Day;
	calendar: WorkCalendar;
	workers: readonly PlanWorker[];
	barred: readonly Barred[];
	jobs: readonly PlanJob[];
	/** Of each job, by key, who may do it; left out: everybody. */
	allowed: Readonly<Record<string, readonly string[]>>;
	floors: readonly (Omit<LevelFloor, 'missing'> & {
		/** By when so many that are out now are back. */
		back: readonly { day: Day; count: number }[];
	})[];
	pins: readonly Placed[];
	/** The plan in force. */
	was: readonly Placed[];
	visitMin: number;
	/** Floors that the plan keeps lower, by name, because no plan keeps them whole; left out: none. */
	relaxed?: readonly RelaxedFloor[];
}

/** A floor that a plan keeps at less than the site asks for. */
export interface RelaxedFloor {
	place: string;
	kind: string;
	from: number;
	to: number;
}

/** Days of a horizon on which somebody could work. */
export function planDays({
	from,
	until,
	calendar
}: Pick<SitePlanFacts, 'from' | 'until' | 'calendar'>): Day[] {
	const days: Day[] = [];
	for (let day = from; day <= until && days.length < MOST_DAYS; day = plusDays(day, 1))
		if (offBecause(day, calendar) === null) days.push(day);
	return days;
}

/** A plan looks no further than so many working days. */
const MOST_DAYS = 400;

/** The problem of a site, with days and people as numbers. */
export function problemOfSite(facts: SitePlanFacts): LevelProblem {
	const days = planDays(facts);
	const dayAt = new Map(days.map((day, i) => [day, i]));
	const workerAt = new Map(facts.workers.map(({ id }, i) => [id, i]));
	const slotOf = new Map<string, { pinned: Slot | null; was: Slot | null }>();
	const note = (list: readonly Placed[], as: 'pinned' | 'was') => {
		for (const { key, day, userId } of list) {
			const [at, worker] = [dayAt.get(day), workerAt.get(userId)];
			if (at === undefined || worker === undefined) continue;
			const known = slotOf.get(key) ?? { pinned: null, was: null };
			known[as] = { day: at, worker };
			slotOf.set(key, known);
		}
	};
	note(facts.was, 'was');
	note(facts.pins, 'pinned');
	const off = new Set(facts.barred.map(({ day, userId }) => `${day} ${userId ?? ''}`));
	return {
		days,
		workers: facts.workers.map(({ id, name, minutes }) => ({
			id: name,
			minutes: days.map((day) =>
				off.has(`${day} `) || off.has(`${day} ${id}`) ? 0 : (minutes[weekdayOf(day)] ?? 0)
			)
		})),
		jobs: facts.jobs.map((job): LevelJob => {
			const allowed = facts.allowed[job.key];
			return {
				id: job.tag,
				minutes: job.minutes,
				...windowIn(days, job.earliest, job.latest),
				place: job.place,
				kind: job.kind,
				awayDays: job.awayDays,
				item: job.item,
				workers: allowed
					? allowed.flatMap((id) => workerAt.get(id) ?? []).sort((a, b) => a - b)
					: null,
				...(slotOf.get(job.key) ?? { pinned: null, was: null })
			};
		}),
		floors: facts.floors.map(({ place, kind, ready, floor, back }) => ({
			place,
			kind,
			ready,
			floor: facts.relaxed?.find((one) => one.place === place && one.kind === kind)?.to ?? floor,
			missing: days.map((day) =>
				back.reduce((sum, out) => sum + (out.day > day ? out.count : 0), 0)
			)
		})),
		visitMin: facts.visitMin
	};
}

/** Monday 0 to Sunday 6. */
const weekdayOf = (day: Day): number => (new Date(`${day}T00:00:00Z`).getUTCDay() + 6) % 7;
