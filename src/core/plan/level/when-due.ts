import { Board } from './board.ts';
import type { LevelProblem } from './problem.ts';

/** What a plan costs. */
export interface PlanFigures {
	/** The highest day of a person, minutes. */
	peakMin: number;
	/** Days that jobs lie after their last day, summed over the jobs. */
	overdueDays: number;
	/** Days on which a floor is missed, summed over the floors. */
	daysUnderFloor: number;
	/** Ways to a place. */
	visits: number;
}

/**
 * The plan of nobody: each job on its last day, on the working day before where that is none, and by whoever has least to
 * do of those who may; what is late on the first day. Hours and floors are not looked at.
 * @returns slot (worker × days + day) of each job; -1 where nobody works in its window
 */
export function whenDue(problem: LevelProblem): Int32Array {
	const board = new Board(problem);
	const n = problem.days.length;
	problem.jobs.forEach(({ from, to, late, workers }, job) => {
		const who = workers ?? problem.workers.map((_, worker) => worker);
		const works = (day: number) =>
			who.filter((worker) => (problem.workers[worker]?.minutes[day] ?? 0) > 0);
		const days = Array.from({ length: Math.max(0, to - from + 1) }, (_, i) =>
			late ? from + i : to - i
		);
		const day = days.find((on) => works(on).length > 0);
		if (day === undefined) return;
		const least = works(day).reduce((a, b) =>
			(board.load[b * n + day] ?? 0) < (board.load[a * n + day] ?? 0) ? b : a
		);
		board.put(job, least * n + day);
	});
	return board.at;
}

/**
 * What a plan costs, whoever made it.
 * @param overdue days that each job is over before the plan begins; left out: none is
 */
export function figuresOf(
	problem: LevelProblem,
	at: ArrayLike<number>,
	overdue: readonly number[] = []
): PlanFigures {
	const board = new Board(problem);
	board.copy(at);
	const n = problem.days.length;
	let overdueDays = 0;
	problem.jobs.forEach(({ late, to }, job) => {
		const slot = at[job] ?? -1;
		if (slot < 0)
			overdueDays += Math.max(0, n - 1 - Math.max(-1, late ? -1 : to)) + (overdue[job] ?? 0);
		else if (late) overdueDays += (slot % n) + (overdue[job] ?? 0);
		else overdueDays += Math.max(0, (slot % n) - to);
	});
	let daysUnderFloor = 0;
	for (const spare of board.spare) if (spare < 0) daysUnderFloor++;
	return { peakMin: board.peak, overdueDays, daysUnderFloor, visits: board.visits };
}
