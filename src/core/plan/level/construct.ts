import type { Board } from './board.ts';

/** How a day is filled: what must be done soonest first, or all of a place while somebody is there. */
export type FillOrder = 'deadline' | 'place';

/** Jobs in a row that did not fit, after which a day is given up. */
const GIVE_UP = 60;

/** Puts what somebody pinned where they want it, as far as it fits. */
export function putPinned(board: Board): void {
	board.problem.jobs.forEach(({ pinned }, job) => {
		if (pinned && (board.at[job] ?? -1) < 0 && board.fits(job, board.slotOf(pinned)))
			board.put(job, board.slotOf(pinned));
	});
}

/** Puts what is late already as early as there is room, what is late longest first. */
export function putLate(board: Board): void {
	const late = board.problem.jobs.flatMap((job, i) => (job.late && !job.pinned ? [i] : []));
	for (const job of late) {
		const slot = firstRoom(board, job, board.capacity);
		if (slot !== null) board.put(job, slot);
	}
}

function firstRoom(board: Board, job: number, limits: ArrayLike<number>): number | null {
	let day = -1;
	let best: number | null = null;
	for (const slot of board.windowOf(job)) {
		const on = slot % board.days;
		if (best !== null && on !== day) return best;
		if (!board.fits(job, slot, limits[slot])) continue;
		day = on;
		if (best === null || better(board, job, slot, best)) best = slot;
	}
	return best;
}

/** Of two people of a day the one who goes there anyway, then the one with less to do. */
function better(board: Board, job: number, slot: number, than: number): boolean {
	const [here, there] = [board.visited(job, slot), board.visited(job, than)];
	if (here !== there) return here;
	return (board.load[slot] ?? 0) < (board.load[than] ?? 0);
}

/**
 * Fills the days in order under a limit for each slot, what is due soonest first; whoever may do the most kinds of work is
 * kept for what only they may do.
 * @returns jobs that found no place
 */
export function fill(board: Board, limits: Float64Array, order: FillOrder): number[] {
	const { jobs, days } = board.problem;
	const waiting: number[][] = days.map(() => []);
	const coming: number[][] = days.map(() => []);
	const lost: number[] = [];
	jobs.forEach((job, i) => {
		if ((board.at[i] ?? -1) >= 0) return;
		const first = coming[job.from];
		if (job.pinned || job.from > job.to || !first) lost.push(i);
		else first.push(i);
	});
	const choice = (job: number) => jobs[job]?.workers?.length ?? Infinity;
	for (let day = 0; day < days.length; day++) {
		const grown = new Set<number>();
		for (const job of coming[day] ?? []) {
			const to = jobs[job]?.to ?? day;
			waiting[to]?.push(job);
			grown.add(to);
		}
		// The longest of a day first: the short ones fill the gaps.
		for (const to of grown)
			waiting[to]?.sort(
				(a, b) => choice(a) - choice(b) || board.minutesOf(b) - board.minutesOf(a) || a - b
			);
		const place = (job: number) => {
			const slot = slotOn(board, job, day, limits);
			if (slot === null) return false;
			board.put(job, slot);
			return true;
		};
		const sweep = (wanted: (job: number) => boolean, opened?: () => void) => {
			let failed = 0;
			for (let to = day; to < days.length && failed < GIVE_UP; to++)
				waiting[to] = (waiting[to] ?? []).filter((job) => {
					if ((board.at[job] ?? -1) >= 0) return false;
					if ((failed >= GIVE_UP && to > day) || !wanted(job)) return true;
					if (!place(job)) {
						failed++;
						return true;
					}
					failed = 0;
					opened?.();
					return false;
				});
		};
		const today = (waiting[day] ?? []).filter((job) => !place(job));
		lost.push(...today);
		waiting[day] = [];
		if (order === 'place') {
			const near = (job: number) => nearOn(board, job, day);
			sweep(near);
			// A place that is opened is done whole before the next is.
			for (let opened = true; opened;) {
				opened = false;
				sweep(
					(job) => !opened || near(job),
					() => (opened = true)
				);
			}
		} else sweep(() => true);
	}
	return lost;
}

const nearOn = (board: Board, job: number, day: number): boolean =>
	(board.problem.jobs[job]?.workers ?? board.problem.workers.map((_, worker) => worker)).some(
		(worker) => board.visited(job, worker * board.days + day)
	);

function slotOn(board: Board, job: number, day: number, limits: Float64Array): number | null {
	if (board.shortAt(job, day) > 0) return null;
	const { workers } = board.problem.jobs[job] ?? { workers: null };
	let best: number | null = null;
	const many = board.problem.workers.length;
	for (let i = 0; i < (workers?.length ?? many); i++) {
		const slot = (workers?.[i] ?? i) * board.days + day;
		if (board.hasRoom(job, slot, limits[slot]) && (best === null || better(board, job, slot, best)))
			best = slot;
	}
	return best;
}

/**
 * Finds a place for a job by making room: where it does not fit, something there moves on first, and so on to a depth.
 * @returns whether it has a place now
 */
export function insert(board: Board, job: number, limits: Float64Array, depth: number): boolean {
	let best: number | null = null;
	for (const slot of board.windowOf(job))
		if (
			board.fits(job, slot, limits[slot]) &&
			(best === null ||
				(board.load[slot] ?? 0) + board.costAt(job, slot) <
					(board.load[best] ?? 0) + board.costAt(job, best))
		)
			best = slot;
	if (best !== null) {
		board.put(job, best);
		return true;
	}
	if (depth === 0 || board.problem.jobs[job]?.pinned) return false;
	for (const slot of board.windowOf(job))
		for (const other of [...(board.held[slot] ?? [])]) {
			const { pinned, late } = board.problem.jobs[other] ?? {};
			if (pinned || late) continue;
			board.take(other);
			if (board.fits(job, slot, limits[slot])) {
				board.put(job, slot);
				if (insert(board, other, limits, depth - 1)) return true;
				board.take(job);
			}
			board.put(other, slot);
		}
	return false;
}
