import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { poissonProbability, poissonQuantile } from '../../stats/poisson.ts';
import { plusDays } from '../calendar.ts';
import { buyLine, type Supply } from './buying.ts';
import { type FleetGroup, fleets, forecastFleet } from './fleet.ts';
import { readyChance, reorderPoint, setsFor } from './steady.ts';

const FROM = '2026-11-30';
const days = (count: number) => Array.from({ length: count }, (_, i) => plusDays(FROM, i));
const flat = (count: number, value: number) => days(count).map(() => value);

describe('Poisson', () => {
	// Published: tables of the cumulative Poisson distribution as in Montgomery & Runger, Applied Statistics and
	// Probability for Engineers; from memory.
	it.each([
		[0, 1, 0.3679],
		[2, 1, 0.9197],
		[4, 2, 0.9473],
		[5, 5, 0.616],
		[10, 10, 0.583],
		[15, 10, 0.9513]
	])('at most %d of mean %d: %d', (k, mean, p) => {
		expect(poissonProbability(k, mean)).toBeCloseTo(p, 4);
	});

	it('sums as a plain sum does, also where the mean is large', () => {
		fc.assert(
			fc.property(fc.double({ min: 0.01, max: 300, noNaN: true }), fc.nat(400), (mean, k) => {
				let [term, sum] = [Math.exp(-mean), 0];
				for (let n = 0; n <= k; term *= mean / ++n) sum += term;
				expect(poissonProbability(k, mean)).toBeCloseTo(Math.min(1, sum), 9);
			}),
			{ numRuns: 200 }
		);
		// By symmetry in the limit: about half lies below a large mean.
		expect(poissonProbability(1_000_000, 1_000_000)).toBeCloseTo(0.5, 3);
	});

	it('has as its quantile the least count that is enough', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.01, max: 500, noNaN: true }),
				fc.double({ min: 0.01, max: 0.999, noNaN: true }),
				(mean, p) => {
					const n = poissonQuantile(p, mean);
					expect(poissonProbability(n, mean)).toBeGreaterThanOrEqual(p - 1e-9);
					expect(poissonProbability(n - 1, mean)).toBeLessThan(p + 1e-9);
				}
			),
			{ numRuns: 300 }
		);
	});
});

describe('in steady state', () => {
	it('the number away is Poisson with rate × turnaround (Palm)', () => {
		const { expectedAway, chanceBelowFloor } = readyChance({
			sets: 10,
			awayPerDay: 0.5,
			awayDays: 4,
			floor: 6
		});
		expect(expectedAway).toBe(2);
		// 1 − P(N ≤ 4) of mean 2, from the table.
		expect(chanceBelowFloor).toBeCloseTo(1 - 0.9473, 4);
		expect(readyChance({ sets: 3, awayPerDay: 1, awayDays: 1, floor: 4 }).chanceBelowFloor).toBe(1);
	});

	it('as many as are said to be enough are, and one fewer is not', () => {
		const asked = { awayPerDay: 1.3, awayDays: 3, floor: 8 };
		const sets = setsFor(asked, 0.01);
		expect(readyChance({ ...asked, sets }).chanceBelowFloor).toBeLessThanOrEqual(0.01);
		expect(readyChance({ ...asked, sets: sets - 1 }).chanceBelowFloor).toBeGreaterThan(0.01);
	});

	it('orders where the lead time is covered', () => {
		// Mean 6 in the lead time: P(N ≤ 9) = 0.9161, P(N ≤ 10) = 0.9574 (tables, from memory).
		expect(reorderPoint({ perMonth: 6, leadTimeDays: 30, serviceLevel: 0.95 })).toEqual({
			reorderAt: 10,
			expected: 6
		});
		expect(reorderPoint({ perMonth: 0, leadTimeDays: 30, serviceLevel: 0.99 }).reorderAt).toBe(0);
	});
});

const group = (over: Partial<FleetGroup> = {}): FleetGroup => ({
	place: 'quay',
	kind: 'masks',
	have: 20,
	floor: 12,
	planned: [],
	looked: [],
	failures: { failed: 0, of: 0 },
	repairDays: 0,
	uses: [],
	washDays: 1,
	...over
});

describe('fleets lived through', () => {
	const asked = { days: days(40), runs: 4000, seed: 5, mostChance: 0.01 };

	it.each([
		[1.5, 3],
		[0.4, 7.5],
		[6, 1]
	])('agree with the Poisson result: %d a day, away %d days', (perDay, washDays) => {
		const expectedAway = perDay * washDays;
		const floor = 20 - Math.round(expectedAway) - 1;
		const { groups } = forecastFleet({
			...asked,
			groups: [group({ uses: flat(40, perDay), washDays, floor })]
		});
		const { chanceBelowFloor } = readyChance({
			sets: 20,
			awayPerDay: perDay,
			awayDays: washDays,
			floor
		});
		// Four standard errors of a share of 4,000 fleets.
		const error = 4 * Math.sqrt((chanceBelowFloor * (1 - chanceBelowFloor)) / asked.runs);
		for (const { belowFloor } of groups[0]?.days.slice(15) ?? [])
			expect(Math.abs(belowFloor - chanceBelowFloor)).toBeLessThan(error);
	});

	it('are the same by the same seed, and others by another', () => {
		const groups = [group({ uses: flat(40, 2), washDays: 2 })];
		const one = forecastFleet({ ...asked, runs: 500, groups });
		expect(forecastFleet({ ...asked, runs: 500, groups })).toEqual(one);
		expect(forecastFleet({ ...asked, runs: 500, seed: 6, groups })).not.toEqual(one);
	});

	it('follow the plan exactly where nothing is left to chance', () => {
		const planned = days(40).map((_, i) => (i === 3 ? 9 : 2));
		const [only] = forecastFleet({ ...asked, runs: 250, groups: [group({ planned })] }).groups;
		expect(only?.days[3]).toEqual({ low: 11, middle: 11, high: 11, belowFloor: 1 });
		expect(only?.days[4]).toMatchObject({ low: 18, high: 18, belowFloor: 0 });
		expect(only?.worst).toEqual({ day: days(40)[3], belowFloor: 1 });
		expect(only?.moreNeeded).toBe(1);
	});

	it('have a wider band where few were looked at', () => {
		const looked = flat(40, 10);
		const width = (failures: FleetGroup['failures']) => {
			const [only] = forecastFleet({
				...asked,
				runs: 1000,
				groups: [group({ have: 200, looked, repairDays: 5, failures })]
			}).groups;
			const last = only?.days.at(-1);
			return (last?.high ?? 0) - (last?.low ?? 0);
		};
		expect(width({ failed: 1, of: 4 })).toBeGreaterThan(width({ failed: 100, of: 400 }));
	});

	it('say how far they are', () => {
		const steps = [...fleets({ ...asked, runs: 1000, groups: [group()] })];
		expect(steps).toEqual([0.25, 0.5, 0.75, 1]);
	});
});

describe('what to buy', () => {
	const supply = (over: Partial<Supply> = {}): Supply => ({
		lots: [{ quantity: 100, useBy: null }],
		use: flat(60, 1),
		leadTimeDays: 10,
		keepsDays: null,
		...over
	});

	it('goes out before the lead time could use what is left', () => {
		const line = buyLine(supply(), FROM, 0.95);
		// 10 in the lead time: the 95 % quantile is 15 (tables, from memory), so 100 lasts until 14 would be left.
		expect(line.orderBy).toBeNull();
		const sooner = buyLine(supply({ lots: [{ quantity: 40, useBy: null }] }), FROM, 0.95);
		expect(sooner.reorderAt).toBe(15);
		expect(sooner.orderBy).toBe(plusDays(FROM, 26));
		expect(sooner.late).toBe(false);
		expect(buyLine(supply({ lots: [] }), FROM, 0.95)).toMatchObject({ late: true, orderBy: FROM });
	});

	it('counts what grows too old as gone, and buys no more than is used in time', () => {
		const old = supply({ lots: [{ quantity: 40, useBy: plusDays(FROM, 5) }] });
		const line = buyLine(old, FROM, 0.95);
		expect(line.wasted).toBe(34);
		const keeps = buyLine(supply({ lots: [], keepsDays: 5 }), FROM, 0.95).order;
		expect(keeps).toBeLessThan(buyLine(supply({ lots: [] }), FROM, 0.95).order);
	});

	it('never orders less at a higher service level', () => {
		fc.assert(
			fc.property(fc.nat(60), fc.double({ min: 0.1, max: 3, noNaN: true }), (quantity, mean) => {
				const one = supply({ lots: [{ quantity, useBy: null }], use: flat(60, mean) });
				const [low, high] = [buyLine(one, FROM, 0.8), buyLine(one, FROM, 0.99)];
				expect(high.reorderAt).toBeGreaterThanOrEqual(low.reorderAt);
				if (low.orderBy) expect((high.orderBy ?? '') <= low.orderBy).toBe(true);
			})
		);
	});
});
