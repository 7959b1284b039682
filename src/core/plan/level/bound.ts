import { type LevelProblem, ROUNDING } from './problem.ts';

/** Days from `from` to `to` into which more must go than they hold. */
export interface Crowd {
	from: number;
	to: number;
	/** Minutes that must be done inside. */
	minutes: number;
	/** Minutes that they hold. */
	room: number;
}

export interface Bound {
	/** No plan has a lower highest day, minutes. */
	minutes: number;
	/** Days that prove that no plan exists at all; null: no such days. */
	crowd: Crowd | null;
}

/** A job as the bound sees it: by when, how long, where. */
interface Demand {
	from: number;
	to: number;
	minutes: number;
	place: string | null;
}

/** What a group of workers can take on each day: what is there already, and the most that fits. */
interface Supply {
	base: number[];
	most: number[];
	day: number[];
}

/**
 * A proved lower bound on the highest day of a person: the densest interval. What must be done inside days s to t, and the
 * ways that it takes at least, has to fit under the level P on those days; P is raised until it does everywhere. For
 * windows without gaps this is the optimum of the plan whose jobs may be cut (Hall's theorem on intervals).
 *
 * @param base minutes that stand in each slot (worker × days + day) already, such as late jobs that go first
 * @param placed jobs that are part of the base
 */
export function boundOf(
	problem: LevelProblem,
	base: ArrayLike<number>,
	placed: ReadonlySet<number>
): Bound {
	const sets = new Map<string, readonly number[] | null>([['', null]]);
	for (const { workers, pinned } of problem.jobs) {
		const allowed = pinned ? [pinned.worker] : workers;
		if (allowed) sets.set(allowed.join(), allowed);
	}
	const n = problem.days.length;
	let bound: Bound = { minutes: 0, crowd: null };
	for (const slotMinutes of longest(problem, placed))
		bound.minutes = Math.max(bound.minutes, slotMinutes);
	for (const allowed of sets.values()) {
		const demands = demandsOf(problem, placed, allowed);
		const supply = supplyOf(problem, base, allowed);
		// Late jobs may have opened a way already: then none is counted, which keeps the bound below every plan.
		const inside = insideOf(demands, n, placed.size > 0 ? 0 : problem.visitMin);
		const found = raise(inside, supply, n, bound.minutes);
		bound = { minutes: found.minutes, crowd: bound.crowd ?? found.crowd };
	}
	for (let slot = 0; slot < base.length; slot++)
		bound.minutes = Math.max(bound.minutes, base[slot] ?? 0);
	return { ...bound, minutes: upToStep(bound.minutes, stepOf(problem)) };
}

/** A job alone already makes a day as long as itself. */
function* longest(problem: LevelProblem, placed: ReadonlySet<number>): Generator<number> {
	const been = goneTo(problem, placed);
	for (const [index, { minutes, place }] of problem.jobs.entries())
		if (!placed.has(index))
			yield minutes + (place !== null && !been.has(place) ? problem.visitMin : 0);
}

const goneTo = (problem: LevelProblem, placed: ReadonlySet<number>): ReadonlySet<string | null> =>
	new Set([...placed].map((job) => problem.jobs[job]?.place ?? null));

function demandsOf(
	problem: LevelProblem,
	placed: ReadonlySet<number>,
	allowed: readonly number[] | null
): Demand[] {
	const within = allowed && new Set(allowed);
	return problem.jobs.flatMap(({ minutes, place, pinned, ...job }, index) => {
		if (placed.has(index)) return [];
		const own = pinned ? [pinned.worker] : job.workers;
		if (within && !own?.every((worker) => within.has(worker))) return [];
		const [from, to] = pinned ? [pinned.day, pinned.day] : [job.from, job.to];
		return from <= to ? [{ from, to, minutes, place }] : [];
	});
}

function supplyOf(
	problem: LevelProblem,
	base: ArrayLike<number>,
	allowed: readonly number[] | null
): Supply {
	const supply: Supply = { base: [], most: [], day: [] };
	problem.workers.forEach(({ minutes }, worker) => {
		if (allowed && !allowed.includes(worker)) return;
		minutes.forEach((most, day) => {
			supply.base.push(base[worker * problem.days.length + day] ?? 0);
			supply.most.push(most);
			supply.day.push(day);
		});
	});
	return supply;
}

/** Minutes that must lie inside each interval of days [s, t], as a matrix s × days + t; ways included. */
function insideOf(demands: readonly Demand[], n: number, visitMin: number): Float64Array {
	const inside = new Float64Array(n * n);
	for (const { from, to, minutes } of demands) add(inside, from * n + to, minutes);
	for (let s = n - 1; s >= 0; s--)
		for (let t = s; t < n; t++) {
			const wider = s + 1 <= t ? (inside[(s + 1) * n + t] ?? 0) : 0;
			const shorter = t - 1 >= s ? (inside[s * n + t - 1] ?? 0) : 0;
			const both = s + 1 <= t - 1 ? (inside[(s + 1) * n + t - 1] ?? 0) : 0;
			add(inside, s * n + t, wider + shorter - both);
		}
	if (visitMin > 0) addWays(inside, demands, n, visitMin);
	return inside;
}

/** Fewest days on which each place has to be gone to, inside each interval: windows pierced by their last days. */
function addWays(
	inside: Float64Array,
	demands: readonly Demand[],
	n: number,
	visitMin: number
): void {
	const inOrder = demands.filter(({ place }) => place !== null).sort((a, b) => a.to - b.to);
	for (let s = 0; s < n; s++) {
		const last = new Map<string | null, number>();
		let ways = 0;
		let next = 0;
		for (let t = s; t < n; t++) {
			for (let job = inOrder[next]; job && job.to <= t; job = inOrder[++next]) {
				if (job.from < s || job.from <= (last.get(job.place) ?? -1)) continue;
				last.set(job.place, job.to);
				ways++;
			}
			add(inside, s * n + t, ways * visitMin);
		}
	}
}

const add = (sums: Float64Array, key: number, minutes: number) => {
	sums[key] = (sums[key] ?? 0) + minutes;
};

/** Raises the level until everything that must lie inside each interval fits under it. */
function raise(
	inside: Float64Array,
	supply: Supply,
	n: number,
	from: number
): Bound & { tight: { from: number; to: number } | null } {
	let level = from;
	let tight: { from: number; to: number } | null = null;
	let crowd: Crowd | null = null;
	let sums = sumsUnder(supply, level, n);
	const room = sumsUnder(supply, Infinity, n);
	for (let s = 0; s < n; s++)
		for (let t = s; t < n; t++) {
			const needed = inside[s * n + t] ?? 0;
			if (needed <= (sums[t + 1] ?? 0) - (sums[s] ?? 0) + ROUNDING) continue;
			const most = (room[t + 1] ?? 0) - (room[s] ?? 0);
			if (needed > most + ROUNDING) {
				if (!crowd || needed - most > crowd.minutes - crowd.room)
					crowd = { from: s, to: t, minutes: needed, room: most };
				continue;
			}
			level = levelFor(supply, s, t, needed, level);
			tight = { from: s, to: t };
			sums = sumsUnder(supply, level, n);
		}
	return { minutes: level, crowd, tight };
}

/** Room under a level, summed up to before each day. */
function sumsUnder({ base, most, day }: Supply, level: number, n: number): Float64Array {
	const room = new Float64Array(n + 1);
	base.forEach((there, i) => {
		const key = (day[i] ?? 0) + 1;
		room[key] = (room[key] ?? 0) + Math.max(0, Math.min(level, most[i] ?? 0) - there);
	});
	for (let i = 1; i <= n; i++) room[i] = (room[i] ?? 0) + (room[i - 1] ?? 0);
	return room;
}

/** The lowest level under which so many minutes fit on the days s to t. */
function levelFor(
	{ base, most, day }: Supply,
	s: number,
	t: number,
	needed: number,
	above: number
): number {
	const own = base.flatMap((there, i) => {
		const on = day[i] ?? -1;
		return on >= s && on <= t ? [{ there, most: most[i] ?? 0 }] : [];
	});
	const under = (level: number) =>
		own.reduce((sum, one) => sum + Math.max(0, Math.min(level, one.most) - one.there), 0);
	// The sum is straight between these: the piece is found, then its point.
	const corners = [...new Set(own.flatMap((one) => [one.there, one.most]))]
		.filter((level) => level > above)
		.sort((a, b) => a - b);
	let low = above;
	for (const high of corners) {
		const [least, greatest] = [under(low), under(high)];
		if (greatest + ROUNDING >= needed)
			return greatest === least
				? low
				: low + ((needed - least) / (greatest - least)) * (high - low);
		low = high;
	}
	return low;
}

/** The step in which sums of minutes come; 0: none. */
export function stepOf({ jobs, visitMin }: Pick<LevelProblem, 'jobs' | 'visitMin'>): number {
	let step = visitMin;
	if (!Number.isInteger(step)) return 0;
	for (const { minutes } of jobs) {
		if (!Number.isInteger(minutes)) return 0;
		step = divisor(step, minutes);
	}
	return step;
}

const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));

const upToStep = (minutes: number, step: number): number =>
	step > 0 ? Math.ceil((minutes - 1e-6) / step) * step : minutes;

/** Rounds after which the days that are left share one level. */
const MOST_ROUNDS = 60;

/**
 * A level for each day: as low as it can be on the densest days, then on the densest of the others, and so on, so that no
 * day is fuller than it must (critical intervals; published: Yao, Demers, Shenker 1995, there for the speed of
 * processors).
 * @returns minutes of each person on each day
 */
export function evenLevels(
	problem: LevelProblem,
	base: ArrayLike<number>,
	placed: ReadonlySet<number>
): Float64Array {
	const n = problem.days.length;
	const supply = supplyOf(problem, base, null);
	let demands = demandsOf(problem, placed, null);
	const levels = new Float64Array(n).fill(-1);
	let last = Infinity;
	for (let round = 0; round < MOST_ROUNDS && demands.length > 0; round++) {
		const inside = insideOf(demands, n, 0);
		const { minutes, tight } = raise(inside, supply, n, 0);
		if (!tight) break;
		last = minutes;
		const { from, to } = tight;
		for (let day = from; day <= to; day++) if ((levels[day] ?? 0) < 0) levels[day] = minutes;
		supply.day.forEach((day, i) => {
			if (day >= from && day <= to) supply.most[i] = 0;
		});
		demands = demands.flatMap((job) => {
			if (job.from >= from && job.to <= to) return [];
			const cut = {
				...job,
				from: job.from >= from && job.from <= to ? to + 1 : job.from,
				to: job.to >= from && job.to <= to ? from - 1 : job.to
			};
			return cut.from <= cut.to ? [cut] : [];
		});
	}
	const rest = demands.length > 0 && Number.isFinite(last) ? last : 0;
	return levels.map((level) => (level < 0 ? rest : level));
}
