import { groupKey, type LevelProblem, ROUNDING, type Slot } from './problem.ts';

/**
 * A plan while it is made: what each day of each person holds, who is where, and what is away. Every move keeps the sums,
 * so that asking whether a job fits costs as much as the days that it is away.
 */
export class Board {
	readonly days: number;
	readonly slots: number;
	/** Minutes in each slot, travel included; a slot is worker × days + day. */
	readonly load: Float64Array;
	/** Most that each slot may hold. */
	readonly capacity: Float64Array;
	/** Slot of each job; -1: none yet. */
	readonly at: Int32Array;
	/** Jobs in each slot. */
	readonly held: Set<number>[];
	/** Place and group of each job as numbers; -1: none. */
	readonly placeOf: Int32Array;
	readonly groupOf: Int32Array;
	private readonly itemOf: Int32Array;
	/** Jobs of each place in each slot. */
	private readonly there: Int32Array;
	/** How many more of each group may be away on each day; the group number × days + day. */
	readonly spare: Float64Array;
	/** Jobs that keep an item away on a day. */
	private readonly away = new Map<number, number>();
	private readonly places: number;
	private readonly everybody: readonly number[];
	readonly problem: LevelProblem;

	constructor(problem: LevelProblem) {
		this.problem = problem;
		this.everybody = problem.workers.map((_, worker) => worker);
		const { days, workers, jobs, floors } = problem;
		this.days = days.length;
		this.slots = workers.length * this.days;
		this.load = new Float64Array(this.slots);
		this.capacity = Float64Array.from(workers.flatMap(({ minutes }) => minutes));
		this.at = new Int32Array(jobs.length).fill(-1);
		this.held = Array.from({ length: this.slots }, () => new Set<number>());
		const places = numbered(jobs.map(({ place }) => place));
		this.placeOf = places.of;
		this.places = places.count;
		this.there = new Int32Array(this.slots * Math.max(1, places.count));
		const groups = new Map(floors.map(({ place, kind }, i) => [groupKey(place, kind), i]));
		this.groupOf = Int32Array.from(jobs, ({ place, kind, awayDays }) =>
			place !== null && kind !== null && awayDays > 0
				? (groups.get(groupKey(place, kind)) ?? -1)
				: -1
		);
		// What is missing at two places, or as two kinds, is missing at each.
		this.itemOf = numbered(
			jobs.map(({ item }, i) => (item === null ? null : `${item}\n${this.groupOf[i]}`))
		).of;
		this.spare = Float64Array.from(
			floors.flatMap(({ ready, floor, missing }) =>
				days.map((_, day) => ready - (missing?.[day] ?? 0) - floor)
			)
		);
	}

	/** Minutes that a job adds to a slot: its own, and the way where nobody goes there otherwise. */
	costAt(job: number, slot: number): number {
		return this.minutesOf(job) + this.wayAt(job, slot);
	}

	/** Whether somebody of that slot goes to the place of the job anyway. */
	visited(job: number, slot: number): boolean {
		const place = this.placeOf[job] ?? -1;
		return place < 0 || (this.there[slot * this.places + place] ?? 0) > 0;
	}

	private wayAt(job: number, slot: number): number {
		return this.problem.visitMin > 0 && !this.visited(job, slot) ? this.problem.visitMin : 0;
	}

	minutesOf(job: number): number {
		return this.problem.jobs[job]?.minutes ?? 0;
	}

	/** Whether a job has room in a slot under a limit, and every floor holds with it. */
	fits(job: number, slot: number, limit = this.capacity[slot] ?? 0): boolean {
		return this.hasRoom(job, slot, limit) && this.shortAt(job, slot % this.days) <= 0;
	}

	hasRoom(job: number, slot: number, limit = this.capacity[slot] ?? 0): boolean {
		return (this.load[slot] ?? 0) + this.costAt(job, slot) <= limit + ROUNDING;
	}

	/** By how many a floor is missed on the worst day if a job is done on a day; 0 or less: it holds. */
	shortAt(job: number, day: number): number {
		const group = this.groupOf[job] ?? -1;
		if (group < 0) return 0;
		let worst = -Infinity;
		for (const on of this.awayOn(job, day))
			if (!this.awayAlready(job, on))
				worst = Math.max(worst, 1 - (this.spare[group * this.days + on] ?? 0));
		return worst === -Infinity ? 0 : worst;
	}

	private awayAlready(job: number, on: number): boolean {
		const item = this.itemOf[job] ?? -1;
		return item >= 0 && (this.away.get(item * this.days + on) ?? 0) > 0;
	}

	/** Days that the item of a job is away when it is done on a day. */
	*awayOn(job: number, day: number): Generator<number> {
		const last = Math.min(this.days, day + (this.problem.jobs[job]?.awayDays ?? 0));
		for (let on = day; on < last; on++) yield on;
	}

	put(job: number, slot: number): void {
		this.load[slot] = (this.load[slot] ?? 0) + this.costAt(job, slot);
		this.count(job, slot, 1);
		this.at[job] = slot;
		this.held[slot]?.add(job);
	}

	take(job: number): number {
		const slot = this.at[job] ?? -1;
		if (slot < 0) return slot;
		this.count(job, slot, -1);
		this.load[slot] = (this.load[slot] ?? 0) - this.costAt(job, slot);
		this.at[job] = -1;
		this.held[slot]?.delete(job);
		return slot;
	}

	private count(job: number, slot: number, by: 1 | -1): void {
		const place = this.placeOf[job] ?? -1;
		if (place >= 0) {
			const key = slot * this.places + place;
			this.there[key] = (this.there[key] ?? 0) + by;
		}
		const group = this.groupOf[job] ?? -1;
		if (group < 0) return;
		const item = this.itemOf[job] ?? -1;
		for (const on of this.awayOn(job, slot % this.days)) {
			if (item >= 0) {
				const key = item * this.days + on;
				const jobs = (this.away.get(key) ?? 0) + by;
				this.away.set(key, jobs);
				// Only the first that takes it away, and the last that brings it back, counts.
				if (jobs !== (by > 0 ? 1 : 0)) continue;
			}
			const key = group * this.days + on;
			this.spare[key] = (this.spare[key] ?? 0) - by;
		}
	}

	/** Slots of a job's window, by who may do it. */
	*windowOf(job: number): Generator<number> {
		const { from, to, workers, pinned } = this.problem.jobs[job] ?? NOTHING;
		if (pinned) {
			yield this.slotOf(pinned);
			return;
		}
		for (let day = from; day <= to; day++)
			for (const worker of workers ?? this.everybody) yield worker * this.days + day;
	}

	slotOf({ day, worker }: Slot): number {
		return worker * this.days + day;
	}

	/** The highest slot, minutes. */
	get peak(): number {
		let peak = 0;
		for (const load of this.load) peak = Math.max(peak, load);
		return peak;
	}

	/** How often somebody goes to a place. */
	get visits(): number {
		let visits = 0;
		for (const jobs of this.there) if (jobs > 0) visits++;
		return visits;
	}

	/** Jobs that stand nowhere. */
	get unplaced(): number[] {
		const jobs: number[] = [];
		this.at.forEach((slot, job) => {
			if (slot < 0) jobs.push(job);
		});
		return jobs;
	}

	/** Puts every job where another plan has it. */
	copy(at: ArrayLike<number>): void {
		for (let job = 0; job < this.at.length; job++)
			if ((this.at[job] ?? -1) !== (at[job] ?? -1)) this.take(job);
		for (let job = 0; job < this.at.length; job++) {
			const slot = at[job] ?? -1;
			if (slot >= 0 && this.at[job] !== slot) this.put(job, slot);
		}
	}
}

const NOTHING = { from: 0, to: -1, workers: null, pinned: null } as const;

function numbered(names: readonly (string | null)[]): { of: Int32Array; count: number } {
	const numbers = new Map<string, number>();
	const of = Int32Array.from(names, (name) => {
		if (name === null) return -1;
		const known = numbers.get(name) ?? numbers.size;
		numbers.set(name, known);
		return known;
	});
	return { of, count: numbers.size };
}
