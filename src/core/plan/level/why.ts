import { type Day, readable } from '../calendar.ts';
import { Board } from './board.ts';
import type { LevelProblem } from './problem.ts';

/** Why a job cannot, or should not, be on a day; null: nothing speaks against it. */
interface Against {
	/** It cannot be there. */
	hard: boolean;
	text: string;
}

/** Why a job stands where it does, sentence by sentence. */
export interface JobWhy {
	/** The window, in words. */
	window: string;
	/** Why not the day before, and the day after, in its window. */
	earlier: string;
	later: string;
	/** What else goes with it there. */
	with: string;
}

const min = (value: number) => `${Math.round(value)} min`;

/**
 * Why a job stands on its day: its window, what speaks against the days around it, and what would move.
 * @param at slots of the plan
 */
export function whyThere(problem: LevelProblem, at: ArrayLike<number>, job: number): JobWhy {
	const board = new Board(problem);
	board.copy(at);
	const slot = board.take(job);
	const one = problem.jobs[job];
	const n = problem.days.length;
	const day = slot < 0 ? -1 : slot % n;
	const peak = Math.max(
		board.peak,
		slot < 0 ? 0 : (board.load[slot] ?? 0) + board.costAt(job, slot)
	);
	const onDay = (on: number) => against(board, job, on, peak);
	const near = (step: -1 | 1): string => {
		const word = step < 0 ? 'Not earlier' : 'Not later';
		const next = day + step;
		if (!one || day < 0) return '';
		if (one.late) return step < 0 ? '' : 'Every day later it is overdue for longer.';
		if (one.pinned) return step < 0 ? 'It is pinned to this day.' : '';
		if (next < one.from || next > one.to)
			return step < 0 ? 'It is the first day of its window.' : 'It is the last day of its window.';
		const found = onDay(next);
		if (!found) {
			const date = readable(problem.days[next] ?? '');
			return `${date} would do as well: nothing else moves.`;
		}
		return `${word}: ${found.text}`;
	};
	const mates = slot < 0 ? [] : [...(board.held[slot] ?? [])];
	const there = mates.filter((other) => one && problem.jobs[other]?.place === one.place);
	return {
		window: windowWords(problem.days, one),
		earlier: near(-1),
		later: near(1),
		with:
			one?.place && slot >= 0
				? there.length > 0
					? `${there.length} more at ${one.place} on that day: one way for all.`
					: `The only job at ${one.place} on that day.`
				: ''
	};
}

function windowWords(days: readonly Day[], job: LevelProblem['jobs'][number] | undefined): string {
	if (!job) return '';
	if (job.late) return 'Its last day has passed: it comes first.';
	if (job.from > job.to) return 'Nobody works in its window.';
	const [first, last] = [readable(days[job.from] ?? ''), readable(days[job.to] ?? '')];
	return job.from === job.to ? `Only ${first}.` : `From ${first} to ${last}.`;
}

/** What speaks against a day, whoever does it there: the least of all who may. */
function against(board: Board, job: number, day: number, peak: number): Against | null {
	const { problem } = board;
	const one = problem.jobs[job];
	const short = board.shortAt(job, day);
	const date = readable(problem.days[day] ?? '');
	if (one && short > 0) {
		const floor = problem.floors[board.groupOf[job] ?? -1];
		return {
			hard: true,
			text: `with it away fewer than ${floor?.floor ?? 0} ${floor?.kind ?? ''} would be ready at ${floor?.place ?? ''} on ${date}.`
		};
	}
	const who = one?.workers ?? problem.workers.map((_, worker) => worker);
	const found = who.map((worker): Against | null => {
		const slot = worker * board.days + day;
		const name = problem.workers[worker]?.id ?? '';
		const most = board.capacity[slot] ?? 0;
		const load = (board.load[slot] ?? 0) + board.costAt(job, slot);
		if (most <= 0) return { hard: true, text: `${name} does not work on ${date}.` };
		if (load > most + 1e-6)
			return {
				hard: true,
				text: `${name} would have ${min(load)} on ${date}, and has ${min(most)}.`
			};
		if (load > peak + 1e-6)
			return { hard: false, text: `${date} would become the highest day, ${min(load)}.` };
		return board.visited(job, slot) || problem.visitMin === 0
			? null
			: { hard: false, text: `it would cost a way of its own to ${one?.place ?? ''} on ${date}.` };
	});
	if (found.length === 0) return { hard: true, text: 'nobody may do it.' };
	if (found.some((one) => one === null)) return null;
	return found.find((one) => one && !one.hard) ?? found[0] ?? null;
}
