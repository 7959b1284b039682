import { Board } from './board.ts';
import { boundOf, type Crowd, evenLevels, stepOf } from './bound.ts';
import { fill, type FillOrder, insert, putLate, putPinned } from './construct.ts';
import { NO_PLAN, search } from './exact.ts';
import { bringTogether, kickLower, lowerPeak, spareVisits } from './improve.ts';
import { type LevelProblem, ROUNDING } from './problem.ts';
import { waysOut, type WayOut } from './ways-out.ts';

/** A plan: where each job stands, how high its highest day is and how low any could be. */
export interface LevelPlan {
	outcome: 'planned' | 'infeasible';
	/** Slot (worker × days + day) of each job; -1: no place for it. */
	at: Int32Array;
	peakMin: number;
	boundMin: number;
	/** How far the plan lies above the bound, as a part of it. */
	gap: number;
	visits: number;
	/** Jobs whose window was gone before the plan began. */
	late: number[];
	/** Jobs that found no place. */
	lost: number[];
	/** Days that prove that there is no plan; null: none was found, or there is one. */
	crowd: Crowd | null;
	/** Whether it was proved that nothing is lower, or that there is no plan. */
	proved: boolean;
	relax: WayOut[];
}

/** How far a plan is, and the best so far. */
export interface LevelProgress {
	done: number;
	of: number;
	at: Int32Array;
	lost: number;
	peakMin: number;
	boundMin: number;
}

export interface LevelOptions {
	/** Start from where the jobs stood, and move only what must. */
	warm?: boolean;
	/** Leaves out the search by chance that takes the last minutes off the highest day. */
	quick?: boolean;
}

/** Up to so many jobs every plan is looked at where that is still needed. */
const SMALL = 14;
const EXACT_STEPS = 400_000;
/** Tries at one more slack, and moves off the highest day, for each job. */
const SLACKS = 12;
const PEAK_TRIES = 4;
/** Up to so many jobs others are taken out by chance too; how often, for all of them together. */
const KICKED = 600;
const KICK_WORK = 12_000;
/** Levels tried between the plan and its bound. */
const STEPS = 40;
/** How much above the level of what is not late a day may be for the sake of fewer ways. Site default. */
const FEW_WAYS = 1.25;
/** How deep others move on to make room. */
const DEPTH = 3;
/** Above so many jobs a chain costs too much. */
const DEEP_JOBS = 2000;

/**
 * Chooses a day and a person for every job within its window, so that nobody is over their minutes, every floor holds and
 * the highest day is as low as it can be; then few ways. The bound is proved (boundOf); small plans are searched whole.
 * Yields how far it is, so that a worker can show it and be stopped.
 */
export function* levelling(
	problem: LevelProblem,
	{ warm = false, quick = false }: LevelOptions = {}
): Generator<LevelProgress, LevelPlan> {
	const { board, base, placed, bound } = begun(problem);
	const { minutes: boundMin, crowd } = bound;
	const start = board.at.slice();
	const tell = (done: number, of: number): LevelProgress => ({
		done,
		of,
		at: board.at.slice(),
		lost: board.unplaced.length,
		peakMin: board.peak,
		boundMin
	});
	yield tell(0, 1);
	if (warm) {
		keepWhere(board);
		for (const job of byChoice(board)) insert(board, job, board.capacity, DEPTH);
	} else yield* anew(board, start, base, placed, boundMin, tell);
	for (const job of byChoice(board))
		insert(board, job, board.capacity, problem.jobs.length > DEEP_JOBS ? 1 : DEPTH);
	if (!warm && !quick && problem.jobs.length <= KICKED) {
		const step = Math.max(stepOf(problem), (board.peak - boundMin) / STEPS, 0.01);
		kickLower(board, boundMin, step, KICK_WORK / Math.max(1, problem.jobs.length));
	}
	if (!warm) fewerWays(board, placed, boundMin);
	let proved = board.unplaced.length > 0 ? crowd !== null : board.peak <= boundMin + ROUNDING;
	if (!warm && problem.jobs.length <= SMALL) proved = exactly(board, start) || proved;
	yield tell(1, 1);
	return asPlan(board, proved ? 'proved' : null, boundMin, crowd);
}

/** What stands before anything is chosen, what is pinned and what is late, and the bound on whatever is made from there. */
export function begun(problem: LevelProblem) {
	const board = new Board(problem);
	putPinned(board);
	putLate(board);
	const base = Float64Array.from(board.load);
	const placed = new Set(
		problem.jobs.flatMap((_, job) => ((board.at[job] ?? -1) >= 0 ? [job] : []))
	);
	return { board, base, placed, bound: boundOf(problem, base, placed) };
}

/** The same, in one go. */
export function level(problem: LevelProblem, options?: LevelOptions): LevelPlan {
	const steps = levelling(problem, options);
	for (let step = steps.next(); ; step = steps.next()) if (step.done) return step.value;
}

/**
 * Spares ways where that makes no day too high. What is late may have made the first days high: that is no leave to heap up
 * the others.
 */
function fewerWays(board: Board, placed: ReadonlySet<number>, boundMin: number): void {
	const { problem } = board;
	const free = boundOf(problem, new Float64Array(board.slots), placed).minutes;
	const longest = problem.jobs.reduce((most, { minutes }) => Math.max(most, minutes), 0);
	const enough = Math.max(FEW_WAYS * free, longest + problem.visitMin);
	const limit = Math.min(Math.max(board.peak, boundMin), enough);
	spareVisits(board, limit);
	bringTogether(board, limit);
	if (problem.visitMin > 0) lowerPeak(board, boundMin, triesFor(board));
}

/** From an empty plan: the lowest level that can be filled, then off the highest day. */
function* anew(
	board: Board,
	start: Int32Array,
	base: Float64Array,
	placed: ReadonlySet<number>,
	boundMin: number,
	tell: (done: number, of: number) => LevelProgress
): Generator<LevelProgress, void> {
	const { problem } = board;
	const levels = evenLevels(problem, base, placed);
	const orders: FillOrder[] = problem.visitMin > 0 ? ['deadline', 'place'] : ['deadline'];
	const longest = problem.jobs.reduce((most, { minutes }) => Math.max(most, minutes), 0);
	let best: { at: Int32Array; lost: number; peak: number; visits: number } | null = null;
	const rounds = orders.length * SLACKS;
	for (const [o, order] of orders.entries()) {
		let [low, high] = [0, 4 * (longest + problem.visitMin)];
		for (let round = 0; round < SLACKS; round++) {
			// What fits somewhere at all is found first; then the slack is halved.
			const slack = round === 0 ? Infinity : round === 1 ? high : (low + high) / 2;
			board.copy(start);
			const lost = fill(board, limitsOf(board, levels, slack), order);
			if (slack === Infinity || lost.length > 0)
				for (const job of lost) insert(board, job, board.capacity, 0);
			const now = { lost: board.unplaced.length, peak: board.peak, visits: board.visits };
			if (!best || isBetter(now, best)) best = { at: board.at.slice(), ...now };
			if (round > 0) {
				if (lost.length === 0) high = slack;
				else low = slack;
				if (high - low < 0.25) break;
			}
			yield tell(o * SLACKS + round + 1, rounds + 2);
		}
	}
	board.copy(best?.at ?? start);
	lowerPeak(board, boundMin, triesFor(board));
	yield tell(rounds + 1, rounds + 2);
}

/** Moves off the highest day that are worth trying. */
const triesFor = ({ problem }: Board): number =>
	Math.min(20_000, PEAK_TRIES * problem.jobs.length + 100);

const isBetter = (
	a: { lost: number; peak: number; visits: number },
	b: { lost: number; peak: number; visits: number }
): boolean =>
	a.lost !== b.lost
		? a.lost < b.lost
		: Math.abs(a.peak - b.peak) > ROUNDING
			? a.peak < b.peak
			: a.visits < b.visits;

function limitsOf({ capacity, days }: Board, levels: Float64Array, slack: number): Float64Array {
	return capacity.map((most, slot) => Math.min(most, (levels[slot % days] ?? 0) + slack));
}

/** Puts every job where it stood, where it still may. */
function keepWhere(board: Board): void {
	board.problem.jobs.forEach(({ was, from, to, workers }, job) => {
		if (!was || (board.at[job] ?? -1) >= 0 || was.day < from || was.day > to) return;
		if (workers && !workers.includes(was.worker)) return;
		if (board.fits(job, board.slotOf(was))) board.put(job, board.slotOf(was));
	});
}

/** What stands nowhere, the least choice first. */
function byChoice(board: Board): number[] {
	const width = (job: number) => {
		const { from, to, workers } = board.problem.jobs[job] ?? { from: 0, to: -1, workers: null };
		return (to - from + 1) * (workers?.length ?? board.problem.workers.length);
	};
	return board.unplaced.sort(
		(a, b) => width(a) - width(b) || board.minutesOf(b) - board.minutesOf(a)
	);
}

/** Looks at every plan of a small problem that could be better. @returns whether all were looked at */
function exactly(board: Board, start: Int32Array): boolean {
	const whole = board.unplaced.length === 0;
	const known = whole ? { peak: board.peak, visits: board.visits } : NO_PLAN;
	const kept = board.at.slice();
	board.copy(start);
	const { at, whole: all } = search(board, known, EXACT_STEPS);
	board.copy(at ?? kept);
	return all;
}

function asPlan(
	board: Board,
	proved: 'proved' | null,
	boundMin: number,
	crowd: Crowd | null
): LevelPlan {
	const { problem } = board;
	const lost = board.unplaced;
	const peakMin = board.peak;
	const short = problem.floors.some(({ ready, floor, missing }) =>
		problem.days.some((_, day) => ready - (missing?.[day] ?? 0) < floor)
	);
	const whole = lost.length === 0;
	const planned = whole && !short;
	// A search that looked at every plan is a bound of its own.
	const bound = whole && proved ? peakMin : Math.min(boundMin, Math.max(peakMin, 0));
	return {
		outcome: planned ? 'planned' : 'infeasible',
		at: board.at,
		peakMin,
		boundMin: whole ? bound : boundMin,
		gap: whole && bound > 0 ? (peakMin - bound) / bound : 0,
		visits: board.visits,
		late: problem.jobs.flatMap(({ late }, job) => (late ? [job] : [])),
		lost,
		crowd: planned ? null : crowd,
		proved: proved !== null,
		relax: [...aboveFleet(problem), ...waysOut(board, lost)]
	};
}

/** Floors that do not hold even with nothing away. */
function aboveFleet({ floors, days }: LevelProblem): WayOut[] {
	return floors.flatMap(({ place, kind, ready, floor, missing }) => {
		const least = ready - Math.max(0, ...days.map((_, day) => missing?.[day] ?? 0));
		if (least >= floor) return [];
		return [
			{
				constraint: 'floor' as const,
				change: `The floor of ${kind} at ${place} is ${floor}, and ${least} are there with none away: lower it to ${least}, or bring ${floor - least} from elsewhere.`,
				jobs: [],
				floors: [{ place, kind, from: floor, to: least, days: days.map((_, day) => day) }]
			}
		];
	});
}
