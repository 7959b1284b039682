import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../calendar.ts';
import { problemOf, type LevelAsked } from './asked.ts';
import { boundOf } from './bound.ts';
import { level, type LevelPlan } from './level.ts';
import type { LevelJob, LevelProblem } from './problem.ts';
import { figuresOf, whenDue } from './when-due.ts';

const MONDAY = '2026-11-30';
const daysFrom = (count: number) => Array.from({ length: count }, (_, i) => plusDays(MONDAY, i));

const job = (id: string, over: Partial<LevelJob> = {}): LevelJob => ({
	id,
	minutes: 10,
	from: 0,
	to: 0,
	late: false,
	place: null,
	kind: null,
	awayDays: 1,
	item: null,
	workers: null,
	pinned: null,
	was: null,
	...over
});

const problem = (over: Partial<LevelProblem>): LevelProblem => ({
	days: daysFrom(over.workers?.[0]?.minutes.length ?? 3),
	workers: [{ id: 'bench', minutes: [60, 60, 60] }],
	jobs: [],
	floors: [],
	visitMin: 0,
	...over
});

/** Every hard constraint, written down a second time and from the rules alone; a sentence for each that is broken. */
function broken(given: LevelProblem, at: ArrayLike<number>): string[] {
	const faults: string[] = [];
	const n = given.days.length;
	const sums = new Map<string, number>();
	const ways = new Set<string>();
	const away = new Map<string, Set<string>>();
	given.jobs.forEach((one, i) => {
		const slot = at[i] ?? -1;
		if (slot < 0) return void faults.push(`${one.id} stands nowhere`);
		const [worker, day] = [Math.floor(slot / n), slot % n];
		if (!one.late && (day < one.from || day > one.to))
			faults.push(`${one.id} is outside its window`);
		if (one.workers && !one.workers.includes(worker)) faults.push(`${one.id} by the wrong person`);
		if (one.pinned && (one.pinned.day !== day || one.pinned.worker !== worker))
			faults.push(`${one.id} left its pin`);
		const key = `${worker}/${day}`;
		sums.set(key, (sums.get(key) ?? 0) + one.minutes);
		if (one.place !== null) ways.add(`${key}/${one.place}`);
		for (let on = day; on < Math.min(n, day + one.awayDays); on++) {
			const group = `${one.place}/${one.kind}/${on}`;
			away.set(group, (away.get(group) ?? new Set()).add(one.item ?? one.id));
		}
	});
	given.workers.forEach(({ minutes }, worker) =>
		minutes.forEach((capacity, day) => {
			const key = `${worker}/${day}`;
			const paths = [...ways].filter((way) => way.startsWith(`${key}/`)).length;
			const sum = (sums.get(key) ?? 0) + paths * given.visitMin;
			if (sum > capacity + 1e-6) faults.push(`day ${day} of ${worker} holds ${sum} of ${capacity}`);
		})
	);
	for (const { place, kind, ready, floor } of given.floors)
		for (let on = 0; on < n; on++) {
			const left = ready - (away.get(`${place}/${kind}/${on}`)?.size ?? 0);
			if (left < floor) faults.push(`${left} ${kind} at ${place} on day ${on}, floor ${floor}`);
		}
	return faults;
}

function peakOf(given: LevelProblem, at: ArrayLike<number>): number {
	const n = given.days.length;
	const sums = new Array<number>(n * given.workers.length).fill(0);
	const been = new Set<string>();
	given.jobs.forEach(({ minutes, place }, i) => {
		const slot = at[i] ?? -1;
		if (slot < 0) return;
		const way = place !== null && !been.has(`${slot}/${place}`) ? given.visitMin : 0;
		been.add(`${slot}/${place}`);
		sums[slot] = (sums[slot] ?? 0) + minutes + way;
	});
	return Math.max(0, ...sums);
}

/** The lowest peak of all plans, by looking at each; null: there is none. */
function lowest(given: LevelProblem): number | null {
	const n = given.days.length;
	let best: number | null = null;
	const at: number[] = [];
	const walk = (i: number): void => {
		const one = given.jobs[i];
		if (!one) {
			if (broken(given, at).length > 0) return;
			const peak = peakOf(given, at);
			if (best === null || peak < best) best = peak;
			return;
		}
		for (let day = one.from; day <= one.to; day++)
			given.workers.forEach((_, worker) => {
				at[i] = worker * n + day;
				walk(i + 1);
			});
	};
	walk(0);
	return best;
}

const instance = (most: { jobs: number; days: number; workers: number }) =>
	fc
		.record({
			days: fc.integer({ min: 1, max: most.days }),
			workers: fc.integer({ min: 1, max: most.workers }),
			visitMin: fc.constantFrom(0, 0, 5),
			capacity: fc.integer({ min: 20, max: 120 }),
			floors: fc.boolean(),
			raw: fc.array(
				fc.record({
					minutes: fc.integer({ min: 1, max: 40 }),
					from: fc.nat(most.days - 1),
					wide: fc.nat(4),
					place: fc.constantFrom('quay', 'shed', null),
					kind: fc.constantFrom('mask', 'set'),
					awayDays: fc.integer({ min: 0, max: 3 }),
					worker: fc.option(fc.nat(most.workers - 1), { freq: 4 })
				}),
				{ maxLength: most.jobs }
			),
			barred: fc.nat(most.days - 1),
			ready: fc.integer({ min: 1, max: 6 })
		})
		.map(({ days, workers, visitMin, capacity, floors, raw, barred, ready }): LevelProblem => {
			const minutes = daysFrom(days).map((_, i) => (i === barred && days > 1 ? 0 : capacity));
			return {
				days: daysFrom(days),
				workers: Array.from({ length: workers }, (_, i) => ({ id: `w${i}`, minutes })),
				jobs: raw.map(({ worker, from, wide, ...rest }, i) =>
					job(`j${i}`, {
						...rest,
						from: Math.min(from, days - 1),
						to: Math.min(from + wide, days - 1),
						workers: worker !== null && worker < workers ? [worker] : null
					})
				),
				floors: floors
					? ['mask', 'set'].map((kind) => ({ place: 'quay', kind, ready, floor: 1 }))
					: [],
				visitMin
			};
		});

describe('a levelled plan', () => {
	it('holds every hard constraint, on 1,000 random instances, by a checker of its own', () => {
		let planned = 0;
		fc.assert(
			fc.property(instance({ jobs: 60, days: 14, workers: 3 }), (given) => {
				const plan = level(given);
				expect(plan.peakMin).toBeCloseTo(peakOf(given, plan.at), 6);
				if (plan.outcome !== 'planned') {
					expect(plan.relax.length + plan.lost.length).toBeGreaterThan(0);
					return;
				}
				planned++;
				expect(broken(given, plan.at)).toEqual([]);
				expect(plan.boundMin).toBeLessThanOrEqual(plan.peakMin + 1e-6);
			}),
			{ numRuns: 1000, seed: 20261128 }
		);
		expect(planned).toBeGreaterThan(300);
	});

	it('is the optimum of small instances, and says so where there is none', () => {
		fc.assert(
			fc.property(instance({ jobs: 6, days: 4, workers: 2 }), (given) => {
				const best = lowest(given);
				const plan = level(given);
				if (best === null) {
					expect(plan.outcome).toBe('infeasible');
					expect(plan.proved).toBe(true);
				} else {
					expect(plan.outcome).toBe('planned');
					expect(plan.peakMin).toBeCloseTo(best, 6);
					expect(plan.gap).toBeCloseTo(0, 9);
				}
			}),
			{ numRuns: 250, seed: 7 }
		);
	});

	it('never bounds above the optimum', () => {
		fc.assert(
			fc.property(instance({ jobs: 6, days: 4, workers: 2 }), (given) => {
				const best = lowest(given);
				const empty = new Float64Array(given.days.length * given.workers.length);
				const { minutes, crowd } = boundOf(given, empty, new Set());
				if (best !== null) {
					expect(minutes).toBeLessThanOrEqual(best + 1e-6);
					expect(crowd).toBeNull();
				}
			}),
			{ numRuns: 250, seed: 8 }
		);
	});

	it('puts what is late first, and says so', () => {
		const given = problem({
			jobs: [
				job('late', { late: true, from: 0, to: 2 }),
				job('a', { minutes: 30, to: 2 }),
				job('b', { minutes: 30, to: 2 })
			]
		});
		const plan = level(given);
		expect(plan.at[0]).toBe(0);
		expect(plan.late).toEqual([0]);
		expect(plan.peakMin).toBe(30);
	});

	it('keeps what is pinned, and asks for another day where pins cannot all hold', () => {
		const pinned = { day: 1, worker: 0 };
		const both = problem({
			jobs: [job('a', { minutes: 40, to: 2, pinned }), job('b', { minutes: 40, to: 2, pinned })]
		});
		const plan = level(both);
		expect(plan.outcome).toBe('infeasible');
		expect(plan.relax.map(({ constraint }) => constraint).sort()).toEqual(['capacity', 'window']);
		expect(plan.relax.find(({ constraint }) => constraint === 'capacity')?.minutes).toEqual([
			{ day: 1, worker: 0, more: 20 }
		]);
	});

	it('has a way out for a job that is longer than any day, and it works', () => {
		const given = problem({ jobs: [job('overhaul', { minutes: 100, to: 2 })] });
		const plan = level(given);
		expect(plan.outcome).toBe('infeasible');
		const more = plan.relax[0]?.minutes?.[0];
		expect(more).toEqual({ day: 0, worker: 0, more: 40 });
		const longer = [60, 60, 60].map(
			(minutes, day) => minutes + (day === more?.day ? more.more : 0)
		);
		expect(level({ ...given, workers: [{ id: 'bench', minutes: longer }] }).outcome).toBe(
			'planned'
		);
	});

	it('lowers a floor last and by name, and that works', () => {
		const floors = [{ place: 'quay', kind: 'mask', ready: 5, floor: 5 }];
		const given = problem({
			floors,
			jobs: [
				job('a', { place: 'quay', kind: 'mask', to: 1 }),
				job('b', { place: 'quay', kind: 'mask', to: 2 })
			]
		});
		const plan = level(given);
		expect(plan.outcome).toBe('infeasible');
		const way = plan.relax.find(({ constraint }) => constraint === 'floor');
		expect(way?.floors?.[0]).toMatchObject({ place: 'quay', kind: 'mask', from: 5, to: 4 });
		const lower = level({
			...given,
			floors: [{ ...floors[0]!, floor: way?.floors?.[0]?.to ?? 0 }]
		});
		expect(lower.outcome).toBe('planned');
	});

	it('says that a floor is above the fleet though nothing is to be done', () => {
		const plan = level(problem({ floors: [{ place: 'quay', kind: 'set', ready: 2, floor: 3 }] }));
		expect(plan.outcome).toBe('infeasible');
		expect(plan.relax[0]?.change).toContain('lower it to 2');
	});

	it('asks for somebody who may, where nobody who may has the time', () => {
		const given = problem({
			workers: [
				{ id: 'Ilse', minutes: [60, 60, 60] },
				{ id: 'Odd', minutes: [0, 60, 60] }
			],
			jobs: [job('valve', { workers: [1], to: 0 })]
		});
		const way = level(given).relax.find(({ constraint }) => constraint === 'competence');
		expect(way?.change).toBe('Authorise Ilse for valve.');
	});

	it('does what is due on one item on one day, where that makes no day too high', () => {
		const given = problem({
			jobs: [
				job('look', { item: 'x', to: 2 }),
				job('test', { item: 'x', from: 1, to: 2 }),
				job('other', { minutes: 40, to: 0 })
			],
			workers: [{ id: 'bench', minutes: [60, 60, 60] }]
		});
		const plan = level(given);
		expect(plan.peakMin).toBe(40);
		expect(plan.at[0]).toBe(plan.at[1]);
	});

	it('moves only what must when it starts from the plan before', () => {
		fc.assert(
			fc.property(instance({ jobs: 40, days: 10, workers: 2 }), fc.nat(39), (given, away) => {
				const before = level(given);
				fc.pre(before.outcome === 'planned' && given.jobs.length > 0);
				const n = given.days.length;
				const jobs = given.jobs.map((one, i) => {
					const slot = before.at[i] ?? 0;
					return { ...one, was: { day: slot % n, worker: Math.floor(slot / n) } };
				});
				expect([...level({ ...given, jobs }, { warm: true }).at]).toEqual([...before.at]);
				// One job is lengthened by nothing but gone: nobody else moves.
				const fewer = jobs.filter((_, i) => i !== away % jobs.length);
				const after = level({ ...given, jobs: fewer }, { warm: true });
				fewer.forEach(({ was }, i) =>
					expect(after.at[i]).toBe((was?.worker ?? 0) * n + (was?.day ?? 0))
				);
			}),
			{ numRuns: 100, seed: 9 }
		);
	});

	it('keeps near its bound where there are many jobs', () => {
		const plan = level(many(2000, 60));
		expect(plan.outcome).toBe('planned');
		expect(plan.gap).toBeLessThan(0.01);
	});
});

/** Many jobs with windows of a week to two months; drawn by a fixed rule. */
function many(count: number, days: number): LevelProblem {
	let state = 7;
	const next = (below: number) => {
		state = (state * 1_664_525 + 1_013_904_223) % 2 ** 32;
		return Math.floor((state / 2 ** 32) * below);
	};
	const jobs = Array.from({ length: count }, (_, i) => {
		const from = next(days);
		return job(`j${i}`, {
			minutes: 4 + next(36),
			from,
			to: Math.min(days - 1, from + 5 + next(40))
		});
	});
	return problem({
		days: daysFrom(days),
		workers: [{ id: 'bench', minutes: daysFrom(days).map(() => 2000) }],
		jobs
	});
}

describe('a question in days', () => {
	const asked: LevelAsked = {
		days: [
			{ day: MONDAY, capacityMin: 60 },
			{ day: plusDays(MONDAY, 1), capacityMin: 60 }
		],
		jobs: [{ id: 'a', minutes: 10, earliest: MONDAY, latest: MONDAY }]
	};
	it.each([
		['days', { ...asked, days: [] }],
		['days[1].day', { ...asked, days: [asked.days[0]!, asked.days[0]!] }],
		['jobs[1].id', { ...asked, jobs: [asked.jobs[0]!, asked.jobs[0]!] }],
		['jobs[0].latest', { ...asked, jobs: [{ ...asked.jobs[0]!, latest: plusDays(MONDAY, -1) }] }]
	])('is refused at %s', (path, bad) => {
		expect(() => problemOf(bad)).toThrow(expect.objectContaining({ path }));
	});

	it('has windows that lie between days of the plan, before it and after it', () => {
		const jobs = [
			{ id: 'gone', minutes: 5, earliest: '2026-11-01', latest: '2026-11-29' },
			{ id: 'later', minutes: 5, earliest: '2027-01-01', latest: '2027-01-02' },
			{ id: 'wide', minutes: 5, earliest: '2026-11-01', latest: '2027-01-02' }
		];
		expect(problemOf({ ...asked, jobs }).jobs).toMatchObject([
			{ late: true, from: 0, to: 1 },
			{ late: false, from: 2, to: 1 },
			{ late: false, from: 0, to: 1 }
		]);
	});
});

describe('done when due', () => {
	it('does each on its last day whatever that comes to, and counts what it costs', () => {
		const given = problem({
			jobs: ['a', 'b', 'c'].map((id) =>
				job(id, { minutes: 30, to: 1, place: 'quay', kind: 'mask' })
			),
			floors: [{ place: 'quay', kind: 'mask', ready: 3, floor: 1 }]
		});
		const at = whenDue(given);
		expect([...at]).toEqual([1, 1, 1]);
		expect(figuresOf(given, at)).toEqual({
			peakMin: 90,
			overdueDays: 0,
			daysUnderFloor: 1,
			visits: 1
		});
		const plan: LevelPlan = level(given);
		expect(figuresOf(given, plan.at)).toMatchObject({ peakMin: 60, daysUnderFloor: 0 });
	});
});
