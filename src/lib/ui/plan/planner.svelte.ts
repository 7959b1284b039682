import type { PlanChange } from '$core/plan/difference';
import { differenceOf } from '$core/plan/difference';
import type { PlanJob } from '$core/plan/jobs';
import { Board } from '$core/plan/level/board';
import type { LevelProblem } from '$core/plan/level/problem';
import { whenDue } from '$core/plan/level/when-due';
import {
	type ReadyCurve,
	readyCurves,
	type SitePlan,
	type SiteProgress,
	slotsOf
} from '$core/plan/plan-site';
import { type Placed, problemOfSite, type SitePlanFacts } from '$core/plan/site-problem';

/** What a day of a person holds, by kinds of work. */
export interface Bar {
	slot: number;
	day: number;
	worker: number;
	look: number;
	test: number;
	rest: number;
	way: number;
	capacity: number;
	jobs: number;
}

const GROUP: Partial<Record<PlanJob['what'], 'look' | 'test'>> = {
	inspection: 'look',
	list: 'look',
	'bench test': 'test',
	'cylinder test': 'test',
	'fit test': 'test',
	'air test': 'test'
};

/** The plan on the screen: what is in force, what is proposed, what doing each when it is due would be. */
export class Planner {
	readonly facts: SitePlanFacts;
	readonly problem: LevelProblem;
	view = $state<'levelled' | 'when due'>('levelled');
	/** A plan that was just made and is not in force. */
	proposal = $state.raw<SitePlan | null>(null);
	/** The best so far, while one is made. */
	best = $state.raw<SiteProgress | null>(null);
	slot = $state(-1);

	constructor(facts: SitePlanFacts) {
		this.facts = facts;
		this.problem = problemOfSite(facts);
		this.slot = this.firstFull();
	}

	/** Slots of the jobs as they are looked at. */
	readonly at = $derived.by(() => {
		if (this.view === 'when due') return whenDue(this.problem);
		return slotsOf(
			this.facts,
			this.problem,
			this.proposal?.placed ?? this.best?.placed ?? this.facts.was
		);
	});

	readonly board = $derived.by(() => {
		const board = new Board(this.problem);
		board.copy(this.at);
		return board;
	});

	/** The bars of each person, day by day. */
	readonly bars = $derived.by((): Bar[][] => {
		const { days, workers } = this.problem;
		const rows = workers.map((_, worker) =>
			days.map((_, day): Bar => ({
				slot: worker * days.length + day,
				day,
				worker,
				look: 0,
				test: 0,
				rest: 0,
				way: 0,
				capacity: workers[worker]?.minutes[day] ?? 0,
				jobs: 0
			}))
		);
		this.facts.jobs.forEach(({ what, minutes }, job) => {
			const slot = this.at[job] ?? -1;
			const bar = rows[Math.floor(slot / days.length)]?.[slot % days.length];
			if (slot < 0 || !bar) return;
			bar[GROUP[what] ?? 'rest'] += minutes;
			bar.jobs++;
		});
		for (const bar of rows.flat())
			bar.way = (this.board.load[bar.slot] ?? 0) - bar.look - bar.test - bar.rest;
		return rows;
	});

	readonly curves = $derived.by((): ReadyCurve[] => readyCurves(this.facts, this.problem, this.at));

	/** Jobs of the slot that is open, what belongs together beside each other. */
	readonly open = $derived.by((): number[] =>
		[...(this.board.held[this.slot] ?? [])].sort((a, b) => {
			const [one, two] = [this.facts.jobs[a], this.facts.jobs[b]];
			return (
				(one?.place ?? '').localeCompare(two?.place ?? '') ||
				(one?.title ?? '').localeCompare(two?.title ?? '') ||
				(one?.tag ?? '').localeCompare(two?.tag ?? '')
			);
		})
	);

	/** Jobs that stand on no day. */
	readonly lost = $derived.by((): number[] => this.board.unplaced);

	/** What a proposal would change. */
	readonly changes = $derived.by((): PlanChange[] => {
		if (!this.proposal) return [];
		const byKey = Object.fromEntries(this.facts.jobs.map((job) => [job.key, job]));
		const named = (placed: readonly Placed[]) =>
			placed.flatMap((one) => {
				const job = byKey[one.key];
				return job ? [{ ...one, tag: job.tag, title: job.title }] : [];
			});
		return differenceOf(named(this.facts.was), named(this.proposal.placed));
	});

	isPinned = (key: string): boolean => this.facts.pins.some((pin) => pin.key === key);

	nameOf = (userId: string): string =>
		this.facts.workers.find(({ id }) => id === userId)?.name ?? 'somebody who left';

	/** The next day on which a person works, from one to the other side; null: none. */
	nextDay(worker: number, from: number, step: 1 | -1): number | null {
		const minutes = this.problem.workers[worker]?.minutes ?? [];
		for (let day = from + step; day >= 0 && day < minutes.length; day += step)
			if ((minutes[day] ?? 0) > 0) return day;
		return null;
	}

	/** Goes to the next day, or to the next person, that the keys lead to. */
	step(dx: -1 | 0 | 1, dy: -1 | 0 | 1): void {
		const n = this.problem.days.length;
		const [worker, day] = [Math.floor(this.slot / n), this.slot % n];
		const to = Math.min(this.problem.workers.length - 1, Math.max(0, worker + dy));
		const on = Math.min(n - 1, Math.max(0, day + dx));
		this.slot = to * n + on;
	}

	private firstFull(): number {
		const at = slotsOf(this.facts, this.problem, this.facts.was);
		const n = this.problem.days.length;
		let first = -1;
		for (const slot of at)
			if (
				slot >= 0 &&
				(first < 0 || slot % n < first % n || (slot % n === first % n && slot < first))
			)
				first = slot;
		return Math.max(0, first);
	}
}
