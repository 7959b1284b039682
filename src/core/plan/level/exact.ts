import type { Board } from './board.ts';
import { ROUNDING } from './problem.ts';

/** What an exact search came to. */
export interface Searched {
	/** Slot of each job in the best plan; null: none is better than the one given. */
	at: Int32Array | null;
	/** Whether every plan was looked at or ruled out. */
	whole: boolean;
}

/** How high the highest day is, and how many ways it takes: the lower, the better, in that order. */
export interface Cost {
	peak: number;
	visits: number;
}

export const NO_PLAN: Cost = { peak: Infinity, visits: Infinity };

/**
 * Looks at every plan that could be better than the one known, the job with the least choice first, and leaves what cannot
 * be. Of what the board holds already nothing moves.
 * @param steps most jobs put down before it gives up
 */
export function search(board: Board, known: Cost, steps: number): Searched {
	const open = board.unplaced.map((job) => ({ job, slots: [...board.windowOf(job)] }));
	open.sort(
		(a, b) => a.slots.length - b.slots.length || board.minutesOf(b.job) - board.minutesOf(a.job)
	);
	let best = known;
	let at: Int32Array | null = null;
	let left = steps;
	const descend = (depth: number, peak: number): void => {
		const one = open[depth];
		if (!one) {
			const visits = board.visits;
			if (peak < best.peak - ROUNDING || visits < best.visits) {
				best = { peak, visits };
				at = board.at.slice();
			}
			return;
		}
		const inOrder = one.slots
			.map((slot) => ({ slot, load: (board.load[slot] ?? 0) + board.costAt(one.job, slot) }))
			.sort((a, b) => a.load - b.load);
		for (const { slot, load } of inOrder) {
			const higher = Math.max(peak, load);
			if (higher > best.peak + ROUNDING) return;
			if (left <= 0) return;
			if (!board.fits(one.job, slot)) continue;
			left--;
			board.put(one.job, slot);
			const same = higher >= best.peak - ROUNDING;
			if (!same || board.visits < best.visits) descend(depth + 1, higher);
			board.take(one.job);
		}
	};
	descend(0, board.peak);
	return { at, whole: left > 0 };
}
