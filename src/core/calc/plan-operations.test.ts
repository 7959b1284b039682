import { describe, expect, it } from 'vitest';
import { calculate } from './registry.ts';

const DAYS = ['2026-11-30', '2026-12-01', '2026-12-02'];
const days = (capacityMin: number) => DAYS.map((day) => ({ day, capacityMin }));
const job = (id: string, minutes: number, more: object = {}) => ({
	id,
	minutes,
	earliest: DAYS[0],
	latest: DAYS[2],
	...more
});
const level = (input: object) => calculate('level', input).value as Record<string, never>;

describe('level', () => {
	it('spreads jobs so that the highest day is lowest, and says that none can be lower', () => {
		const jobs = ['a', 'b', 'c', 'd', 'e', 'f'].map((id) => job(id, 20));
		expect(level({ days: days(120), jobs })).toMatchObject({
			outcome: 'planned',
			peakMin: 40,
			boundMin: 40,
			gap: 0,
			late: []
		});
	});

	it('keeps a floor: two of a kind with one to spare are never away on one day', () => {
		const away = { place: 'quay', kind: 'masks' };
		const { assignment } = level({
			days: days(120),
			jobs: [job('a', 10, away), job('b', 10, away), job('c', 10, away)],
			floors: [{ ...away, ready: 5, floor: 4 }]
		});
		expect(new Set(Object.values(assignment ?? {})).size).toBe(3);
	});

	it('places the work too where a floor is above what there is, and says that it is', () => {
		const plan = level({
			days: days(120),
			jobs: [job('a', 40), job('b', 30), job('c', 20), job('d', 10)],
			floors: [{ place: 'quay', kind: 'sets', ready: 2, floor: 3 }]
		}) as unknown as { peakMin: number; boundMin: number; gap: number; assignment: object };
		expect(plan).toMatchObject({ outcome: 'infeasible', relax: [{ constraint: 'floor' }] });
		expect(Object.keys(plan.assignment)).toHaveLength(4);
		expect(plan.gap).toBeCloseTo((plan.peakMin - plan.boundMin) / plan.boundMin, 10);
	});

	it('counts the days that something is away', () => {
		const away = { place: 'quay', kind: 'sets', awayDays: 2 };
		expect(
			level({
				days: days(120),
				jobs: [job('a', 10, away), job('b', 10, away)],
				floors: [{ place: 'quay', kind: 'sets', ready: 2, floor: 1 }]
			})
		).toMatchObject({ outcome: 'planned', assignment: expect.anything() as unknown });
		expect(
			level({
				days: days(120),
				jobs: [job('a', 10, away), job('b', 10, away), job('c', 10, away)],
				floors: [{ place: 'quay', kind: 'sets', ready: 2, floor: 1 }]
			})
		).toMatchObject({ outcome: 'infeasible', relax: [{ constraint: 'floor' }] });
	});

	it('puts what is late first and says so; the way to a place counts once a day', () => {
		const out = level({
			days: days(60),
			jobs: [
				{ ...job('gone', 10), earliest: '2026-11-01', latest: '2026-11-20' },
				job('a', 10, { place: 'quay' }),
				job('b', 10, { place: 'quay' })
			],
			visitMin: 15
		});
		expect(out).toMatchObject({ late: ['gone'], assignment: { gone: DAYS[0] } });
		// Apart they cost a way each, 10 + 15 min; together the day would be 35.
		expect(out).toMatchObject({ outcome: 'planned', peakMin: 25 });
	});

	it('says what would help where there is no plan: none works, a job is longer than a day, a floor is above the fleet', () => {
		expect(level({ days: days(0), jobs: [job('a', 10)] })).toMatchObject({
			outcome: 'infeasible',
			reasons: [{ rule: 'level.no-days' }, { rule: 'level.job' }]
		});
		expect(level({ days: days(60), jobs: [job('a', 90)] })).toMatchObject({
			outcome: 'infeasible',
			relax: [{ constraint: 'capacity', change: '30 min more on 30 Nov 2026.', jobs: ['a'] }]
		});
		expect(
			level({
				days: days(60),
				jobs: [],
				floors: [{ place: 'quay', kind: 'suits', ready: 1, floor: 2 }]
			})
		).toMatchObject({ outcome: 'infeasible', relax: [{ constraint: 'floor', jobs: [] }] });
	});

	it.each([
		['days', { days: [], jobs: [] }],
		['days[0].day', { days: [{ day: '30.11.2026', capacityMin: 60 }], jobs: [] }],
		['jobs[0].latest', { days: days(60), jobs: [job('a', 10, { latest: '2026-11-29' })] }],
		['jobs[0].minutes', { days: days(60), jobs: [job('a', -1)] }],
		['jobs[1].id', { days: days(60), jobs: [job('a', 1), job('a', 1)] }]
	])('refuses at %s', (path, input) => {
		expect(calculate('level', input)).toMatchObject({
			ok: false,
			value: { error: { issues: [{ path }] } }
		});
	});
});

describe('reorder and ready-chance', () => {
	it('answer as the tables of the Poisson distribution do', () => {
		// Published: cumulative Poisson tables (Montgomery & Runger), from memory: mean 6, P(N ≤ 10) = 0.957, P(N ≤ 9) = 0.916.
		expect(
			calculate('reorder', { perMonth: 12, leadTimeDays: 15, serviceLevel: 0.95 }).value
		).toEqual({ reorderAt: 10, expected: 6 });
		// Mean 2: P(N > 4) = 0.0527.
		expect(
			calculate('ready-chance', { sets: 9, awayPerDay: 1, awayDays: 2, floor: 5 }).value
		).toMatchObject({ expectedAway: 2, chanceBelowFloor: expect.closeTo(0.0527, 4) as number });
	});
});
