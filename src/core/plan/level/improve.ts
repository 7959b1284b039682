import { Chance } from '../../stats/chance.ts';
import type { Board } from './board.ts';
import { insert } from './construct.ts';
import { ROUNDING } from './problem.ts';

const movable = (board: Board, job: number): boolean => {
	const { pinned, late } = board.problem.jobs[job] ?? {};
	return !pinned && !late;
};

/** Takes work off the highest day, by moves and by exchanges, until the peak is down to a bound or nothing helps. */
export function lowerPeak(board: Board, bound: number, tries: number): void {
	for (let round = 0; round < tries; round++) {
		let top = 0;
		for (let slot = 1; slot < board.slots; slot++)
			if ((board.load[slot] ?? 0) > (board.load[top] ?? 0)) top = slot;
		const peak = board.load[top] ?? 0;
		if (peak <= bound + ROUNDING || !relieve(board, top, peak)) return;
	}
}

/** Makes one slot lower than the peak without making another as high. */
function relieve(board: Board, top: number, peak: number): boolean {
	const under = peak - 2 * ROUNDING;
	const jobs = [...(board.held[top] ?? [])].filter((job) => movable(board, job));
	for (const job of jobs) {
		board.take(job);
		let best: number | null = null;
		for (const slot of board.windowOf(job))
			if (
				slot !== top &&
				board.fits(job, slot, Math.min(under, board.capacity[slot] ?? 0)) &&
				(best === null || (board.load[slot] ?? 0) < (board.load[best] ?? 0))
			)
				best = slot;
		board.put(job, best ?? top);
		if (best !== null) return true;
	}
	for (const job of jobs) if (exchange(board, job, top, under)) return true;
	return false;
}

function exchange(board: Board, job: number, top: number, under: number): boolean {
	board.take(job);
	for (const slot of board.windowOf(job)) {
		if (slot === top) continue;
		for (const other of [...(board.held[slot] ?? [])]) {
			if (board.minutesOf(other) >= board.minutesOf(job) || !movable(board, other)) continue;
			if (!mayGo(board, other, top)) continue;
			board.take(other);
			if (board.fits(job, slot, Math.min(under, board.capacity[slot] ?? 0))) {
				board.put(job, slot);
				if (board.fits(other, top, Math.min(under, board.capacity[top] ?? 0))) {
					board.put(other, top);
					return true;
				}
				board.take(job);
			}
			board.put(other, slot);
		}
	}
	board.put(job, top);
	return false;
}

function mayGo(board: Board, job: number, slot: number): boolean {
	const { from, to, workers } = board.problem.jobs[job] ?? { from: 0, to: -1, workers: null };
	const day = slot % board.days;
	const worker = (slot - day) / board.days;
	return from <= day && day <= to && (workers === null || workers.includes(worker));
}

/**
 * Spares ways: all that a person would do at a place on a day goes to days on which somebody goes there anyway, the
 * smallest errands first, and no day becomes higher than the peak.
 */
export function spareVisits(board: Board, peak: number): void {
	const errands = new Map<string, number[]>();
	board.at.forEach((slot, job) => {
		const place = board.placeOf[job] ?? -1;
		if (slot < 0 || place < 0) return;
		const key = `${slot}:${place}`;
		const known = errands.get(key);
		if (known) known.push(job);
		else errands.set(key, [job]);
	});
	const smallest = [...errands.values()].sort((a, b) => a.length - b.length);
	for (const jobs of smallest) {
		if (!jobs.every((job) => movable(board, job))) continue;
		const from = board.at[jobs[0] ?? -1] ?? -1;
		// Something may have joined it by now: then the way is made anyway.
		const place = board.placeOf[jobs[0] ?? -1];
		const there = [...(board.held[from] ?? [])].filter((job) => board.placeOf[job] === place);
		if (there.length !== jobs.length || jobs.some((job) => board.at[job] !== from)) continue;
		for (const job of jobs) board.take(job);
		const moved: number[] = [];
		const all = jobs.every((job) => {
			const slot = visitedSlot(board, job, peak, from);
			if (slot === null) return false;
			board.put(job, slot);
			moved.push(job);
			return true;
		});
		if (all) continue;
		for (const job of moved) board.take(job);
		for (const job of jobs) board.put(job, from);
	}
}

/** The last day on which somebody goes there anyway and it fits: what is due late is not done much before. */
function visitedSlot(board: Board, job: number, peak: number, not: number): number | null {
	let best: number | null = null;
	for (const slot of board.windowOf(job))
		if (
			slot !== not &&
			board.visited(job, slot) &&
			board.fits(job, slot, Math.min(peak, board.capacity[slot] ?? 0)) &&
			(best === null || slot % board.days > best % board.days)
		)
			best = slot;
	return best;
}

/** Does all that is due on one item on one day, where windows and hours allow it and no day becomes higher than the limit. */
export function bringTogether(board: Board, limit: number): void {
	const items = new Map<string, number[]>();
	board.problem.jobs.forEach(({ item }, job) => {
		if (item === null || (board.at[job] ?? -1) < 0) return;
		items.set(item, [...(items.get(item) ?? []), job]);
	});
	for (const jobs of items.values())
		for (const job of jobs) {
			if (!movable(board, job)) continue;
			const from = board.take(job);
			const to = jobs
				.map((other) => board.at[other] ?? -1)
				.find(
					(slot) =>
						slot >= 0 &&
						mayGo(board, job, slot) &&
						board.fits(job, slot, Math.min(limit, board.capacity[slot] ?? 0))
				);
			board.put(job, to ?? from);
		}
}

/** How often in a row a lower level is tried without luck. */
const KICKS = 60;

/**
 * Tries level after level below the plan: what stands above it is taken out and put in elsewhere by chains of moves; where
 * that fails, some others are taken out too, by a seeded chance, and it is tried again.
 * @param step by how much lower each try is, minutes
 */
export function kickLower(board: Board, bound: number, step: number, tries: number): void {
	const chance = new Chance(board.at.length);
	let left = tries;
	for (;;) {
		const lost = board.unplaced.length;
		const limit = lost > 0 ? Infinity : board.peak - step;
		if (lost === 0 && limit < bound - ROUNDING) return;
		const kept = board.at.slice();
		const limits = board.capacity.map((most) => Math.min(most, limit));
		let done = false;
		for (let kick = 0; kick < KICKS && left > 0 && !done; kick++, left--) {
			const out = takeOut(board, limits, chance, kick);
			done = out.every((job) => insert(board, job, limits, CHAIN));
			if (!done) board.copy(kept);
		}
		if (!done) return;
	}
}

/** How deep others move on. */
const CHAIN = 3;

/** Takes out what stands above the limits, what stands nowhere, and by chance some others; those that are longest first. */
function takeOut(board: Board, limits: Float64Array, chance: Chance, kick: number): number[] {
	const out = board.unplaced;
	for (let slot = 0; slot < board.slots; slot++) {
		const here = [...(board.held[slot] ?? [])].filter((job) => movable(board, job));
		while ((board.load[slot] ?? 0) > (limits[slot] ?? 0) + ROUNDING && here.length > 0) {
			const [job] = here.splice(chance.int(0, here.length - 1), 1);
			if (job === undefined) break;
			board.take(job);
			out.push(job);
		}
	}
	const others = kick === 0 ? 0 : Math.min(8, 1 + Math.floor(board.at.length / 8));
	for (let i = 0; i < others; i++) {
		const job = chance.int(0, board.at.length - 1);
		if ((board.at[job] ?? -1) < 0 || !movable(board, job)) continue;
		board.take(job);
		out.push(job);
	}
	return out
		.map((job) => ({ job, key: board.minutesOf(job) * (0.7 + 0.6 * chance.next()) }))
		.sort((a, b) => b.key - a.key)
		.map(({ job }) => job);
}
