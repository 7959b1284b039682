import { InputError } from '../../verdict.ts';
import { checkDay, type Day } from '../calendar.ts';
import type { LevelJob, LevelProblem } from './problem.ts';
import { groupKey } from './problem.ts';

/** A levelling question in days and names, of one person or one bench. */
export interface LevelAsked {
	days: readonly { day: Day; capacityMin: number }[];
	jobs: readonly {
		id: string;
		minutes: number;
		earliest: Day;
		latest: Day;
		place?: string | undefined;
		kind?: string | undefined;
		awayDays?: number | undefined;
	}[];
	floors?: readonly { place: string; kind: string; ready: number; floor: number }[] | undefined;
	visitMin?: number | undefined;
}

/**
 * Reads a question into the problem: days in order, windows as days of the plan.
 * @throws InputError located at what cannot be: no days, a day or a job twice, a window that ends before it begins
 */
export function problemOf(asked: LevelAsked): LevelProblem {
	if (asked.days.length === 0)
		throw new InputError('days', 'No days: there is nothing to plan on.');
	asked.days.forEach(({ day }, i) => checkDay(day, `days[${i}].day`));
	const inOrder = [...asked.days].sort((a, b) => a.day.localeCompare(b.day));
	const days = inOrder.map(({ day }) => day);
	once(
		asked.days.map(({ day }) => day),
		(day, i) => [`days[${i}].day`, `${day} stands there twice.`]
	);
	once(
		asked.jobs.map(({ id }) => id),
		(id, i) => [`jobs[${i}].id`, `The job "${id}" stands there twice.`]
	);
	const floors = asked.floors ?? [];
	once(
		floors.map(({ place, kind }) => groupKey(place, kind)),
		(_, i) => [`floors[${i}]`, 'There is a floor of this kind at this place already.']
	);
	return {
		days,
		workers: [{ id: 'bench', minutes: inOrder.map(({ capacityMin }) => capacityMin) }],
		jobs: asked.jobs.map((job, i): LevelJob => {
			checkDay(job.earliest, `jobs[${i}].earliest`);
			checkDay(job.latest, `jobs[${i}].latest`);
			if (job.latest < job.earliest)
				throw new InputError(
					`jobs[${i}].latest`,
					`The last day, ${job.latest}, lies before the first, ${job.earliest}.`
				);
			return {
				id: job.id,
				minutes: job.minutes,
				...windowIn(days, job.earliest, job.latest),
				place: job.place ?? null,
				kind: job.kind ?? null,
				awayDays: job.awayDays ?? 1,
				item: null,
				workers: null,
				pinned: null,
				was: null
			};
		}),
		floors,
		visitMin: asked.visitMin ?? 0
	};
}

/**
 * A window as days of a plan. One that was gone before the plan begins is late: every day is open to it, the first is the
 * best.
 */
export function windowIn(
	days: readonly Day[],
	earliest: Day,
	latest: Day
): Pick<LevelJob, 'from' | 'to' | 'late'> {
	const last = days.length - 1;
	if (latest < (days[0] ?? '')) return { from: 0, to: last, late: true };
	const from = firstFrom(days, earliest);
	const after = firstFrom(days, latest);
	return { from, to: days[after] === latest ? after : after - 1, late: false };
}

/** Place of the first day that is not before a day; the length where there is none. */
function firstFrom(days: readonly Day[], day: Day): number {
	let [low, high] = [0, days.length];
	while (low < high) {
		const middle = (low + high) >> 1;
		if ((days[middle] ?? '') < day) low = middle + 1;
		else high = middle;
	}
	return low;
}

function once(
	names: readonly string[],
	fault: (name: string, at: number) => [string, string]
): void {
	const seen = new Set<string>();
	names.forEach((name, i) => {
		if (seen.has(name)) throw new InputError(...fault(name, i));
		seen.add(name);
	});
}
