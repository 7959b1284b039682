import { readable } from '../calendar.ts';
import { Board } from './board.ts';
import type { LevelProblem } from './problem.ts';

/** A change under which jobs that found no place have one; worked out, not guessed. */
export interface WayOut {
	constraint: 'capacity' | 'floor' | 'window' | 'competence';
	/** As a sentence. */
	change: string;
	jobs: string[];
	/** What it asks for, so that it can be done by one press. */
	minutes?: { day: number; worker: number; more: number }[];
	floors?: { place: string; kind: string; from: number; to: number; days: number[] }[];
	windows?: { job: string; day: number; worker: number }[];
	workers?: { job: string; worker: number }[];
}

/**
 * The ways out for jobs that found no place, the cheapest of each kind: more minutes on a day, a lower floor, a later day,
 * somebody else. Each is tried on the plan as it stands, for all of the jobs together; what does not help all of them says
 * which it helps.
 */
export function waysOut(board: Board, lost: readonly number[]): WayOut[] {
	if (lost.length === 0) return [];
	const ways = [
		moreMinutes(board, lost),
		lowerFloors(board, lost),
		laterDays(board, lost),
		somebodyElse(board, lost)
	];
	return ways.filter((way) => way !== null).sort((a, b) => b.jobs.length - a.jobs.length);
}

/** A board as another, to try things on. */
function trial({ problem, at }: Board): Board {
	const board = new Board(problem);
	board.copy(at);
	return board;
}

const idOf = ({ jobs }: LevelProblem, job: number): string => jobs[job]?.id ?? '';

function moreMinutes(from: Board, lost: readonly number[]): WayOut | null {
	const board = trial(from);
	const { problem } = board;
	const helped: number[] = [];
	const more = new Map<number, number>();
	for (const job of lost) {
		let best: { slot: number; over: number } | null = null;
		for (const slot of board.windowOf(job)) {
			if (board.shortAt(job, slot % board.days) > 0) continue;
			const over = (board.load[slot] ?? 0) + board.costAt(job, slot) - (board.capacity[slot] ?? 0);
			if (!best || over < best.over) best = { slot, over };
		}
		if (!best) continue;
		board.put(job, best.slot);
		helped.push(job);
		const over = (board.load[best.slot] ?? 0) - (board.capacity[best.slot] ?? 0);
		if (over > 0) more.set(best.slot, over);
	}
	if (helped.length === 0) return null;
	const minutes = [...more].map(([slot, over]) => ({
		day: slot % board.days,
		worker: Math.floor(slot / board.days),
		more: Math.ceil(over)
	}));
	minutes.sort((a, b) => a.day - b.day);
	const many = problem.workers.length > 1;
	const each = minutes.map(
		(one) =>
			`${one.more} min more on ${readable(problem.days[one.day] ?? '')}${many ? ` (${problem.workers[one.worker]?.id ?? ''})` : ''}`
	);
	return {
		constraint: 'capacity',
		change: `${listed(each)}.`,
		jobs: helped.map((job) => idOf(problem, job)),
		minutes
	};
}

function lowerFloors(from: Board, lost: readonly number[]): WayOut | null {
	const board = trial(from);
	const { problem } = board;
	const helped: number[] = [];
	const lowered = new Map<number, { by: number; days: Set<number> }>();
	for (const job of lost) {
		const group = board.groupOf[job] ?? -1;
		if (group < 0) continue;
		let best: { slot: number; short: number } | null = null;
		for (const slot of board.windowOf(job)) {
			if (!board.hasRoom(job, slot)) continue;
			const short = board.shortAt(job, slot % board.days);
			if (!best || short < best.short) best = { slot, short };
		}
		if (!best) continue;
		const known = lowered.get(group) ?? { by: 0, days: new Set<number>() };
		const day = best.slot % board.days;
		for (const on of board.awayOn(job, day))
			if ((board.spare[group * board.days + on] ?? 0) < 1) known.days.add(on);
		board.put(job, best.slot);
		helped.push(job);
		for (const on of known.days)
			known.by = Math.max(known.by, -(board.spare[group * board.days + on] ?? 0));
		lowered.set(group, known);
	}
	const floors = [...lowered].flatMap(([group, { by, days }]) => {
		const floor = problem.floors[group];
		return floor && by > 0
			? [
					{
						place: floor.place,
						kind: floor.kind,
						from: floor.floor,
						to: floor.floor - by,
						days: [...days].sort((a, b) => a - b)
					}
				]
			: [];
	});
	if (floors.length === 0) return null;
	const each = floors.map(({ place, kind, from: is, to, days }) => {
		const [first, last] = [days[0] ?? 0, days.at(-1) ?? 0];
		const when =
			first === last
				? `on ${readable(problem.days[first] ?? '')}`
				: `from ${readable(problem.days[first] ?? '')} to ${readable(problem.days[last] ?? '')}`;
		return `lower the floor of ${kind} at ${place} from ${is} to ${to} ${when}, or bring ${is - to} there from elsewhere`;
	});
	return {
		constraint: 'floor',
		change: `${capital(listed(each))}.`,
		jobs: helped.map((job) => idOf(problem, job)),
		floors
	};
}

function laterDays(from: Board, lost: readonly number[]): WayOut | null {
	const board = trial(from);
	const { problem } = board;
	const windows: { job: string; day: number; worker: number }[] = [];
	for (const job of lost) {
		const { from: first, to, workers, pinned } = problem.jobs[job] ?? {};
		if (first === undefined || to === undefined) continue;
		const days = problem.days.map((_, day) => day);
		// After its last day by as little as can be; what is pinned, or has no day of its own, on any day near it.
		const near = (day: number) =>
			day > to ? day - to : pinned ? Math.abs(day - pinned.day) : to - day + days.length;
		const found = days
			.sort((a, b) => near(a) - near(b))
			.flatMap((day) =>
				(workers ?? problem.workers.map((_, w) => w)).map((worker) => ({ day, worker }))
			)
			.find(({ day, worker }) => board.fits(job, worker * board.days + day));
		if (!found) continue;
		board.put(job, board.slotOf(found));
		windows.push({ job: idOf(problem, job), ...found });
	}
	if (windows.length === 0) return null;
	const byDay = new Map<number, string[]>();
	for (const { job, day } of windows) byDay.set(day, [...(byDay.get(day) ?? []), job]);
	const each = [...byDay]
		.sort(([a], [b]) => a - b)
		.map(([day, jobs]) => `${listed(jobs)} on ${readable(problem.days[day] ?? '')}`);
	return {
		constraint: 'window',
		change: `Outside the window: ${listed(each)}.`,
		jobs: windows.map(({ job }) => job),
		windows
	};
}

function somebodyElse(from: Board, lost: readonly number[]): WayOut | null {
	const board = trial(from);
	const { problem } = board;
	const helped: { job: string; worker: number }[] = [];
	for (const job of lost) {
		const { from: first, to, workers, pinned } = problem.jobs[job] ?? {};
		if (!workers || pinned || first === undefined || to === undefined) continue;
		for (let slot = 0; slot < board.slots; slot++) {
			const day = slot % board.days;
			const worker = (slot - day) / board.days;
			if (day < first || day > to || workers.includes(worker) || !board.fits(job, slot)) continue;
			board.put(job, slot);
			helped.push({ job: idOf(problem, job), worker });
			break;
		}
	}
	if (helped.length === 0) return null;
	const byWorker = new Map<number, string[]>();
	for (const { job, worker } of helped)
		byWorker.set(worker, [...(byWorker.get(worker) ?? []), job]);
	const each = [...byWorker].map(
		([worker, jobs]) => `${problem.workers[worker]?.id ?? ''} for ${listed(jobs)}`
	);
	return {
		constraint: 'competence',
		change: `Authorise ${listed(each)}.`,
		jobs: helped.map(({ job }) => job),
		workers: helped
	};
}

/** Names in a row; of many the first, and how many more. */
const MOST_NAMED = 4;
const listed = (names: readonly string[]): string => {
	if (names.length > MOST_NAMED)
		return `${names.slice(0, MOST_NAMED).join(', ')} and ${names.length - MOST_NAMED} more`;
	return names.length < 2
		? (names[0] ?? '')
		: `${names.slice(0, -1).join(', ')} and ${names.at(-1) ?? ''}`;
};
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
