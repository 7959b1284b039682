import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../plan/calendar.ts';
import { HORIZON_DAYS, trendOf, trendReason, type TrendPoint } from './trend.ts';

const START = '2026-01-01';
const line = (from: number, perDay: number, n = 6, step = 30): TrendPoint[] =>
	Array.from({ length: n }, (_, i) => ({
		on: plusDays(START, i * step),
		value: from + perDay * i * step
	}));
const WHISTLE = { from: 50, to: 60 };

describe('a trend of readings', () => {
	it('a whistle that drifts low is told when it leaves its band', () => {
		// 57 bar falling one bar in thirty days stands at 52 after five months; 50 is passed after sixty days more.
		const trend = trendOf(line(57, -1 / 30), WHISTLE);
		expect(trend).toMatchObject({ n: 6, crossesOn: plusDays(START, 150 + 61), inDays: 61 });
		expect(trend?.perMonth).toBeCloseTo(-1, 9);
		expect(trend && trendReason('Whistle', 'bar', trend, WHISTLE)?.text).toMatch(
			/falls by 1\.0 bar a month and reaches 50 bar in 61 days/
		);
	});

	it('one wild reading does not move it', () => {
		const points = line(55, 0, 9);
		const wild = points.map((p, i) => (i === 4 ? { ...p, value: 90 } : p));
		expect(trendOf(wild, WHISTLE)).toMatchObject({ perMonth: 0, crossesOn: null });
	});

	it('readings that only scatter have no crossing, however their line points', () => {
		const scatter = [2, 5, 0, 6, 3, 1, 6, 5].map((value, i) => ({
			on: plusDays(START, i * 30),
			value
		}));
		const trend = trendOf(scatter, { to: 8 });
		expect(trend?.perMonth).toBeGreaterThan(0);
		expect(trend).toMatchObject({ sure: false, crossesOn: null });
	});

	it('says nothing of few readings, of several on one day, nor beyond its horizon', () => {
		expect(trendOf(line(55, -1, 3), WHISTLE)).toBeUndefined();
		expect(trendOf(line(55, -1, 8, 0), WHISTLE)).toBeUndefined();
		expect(trendOf(line(55, -0.0001), WHISTLE)?.crossesOn).toBeNull();
		const slow = trendOf(line(57, -1 / 300), WHISTLE);
		expect(slow && trendReason('Whistle', 'bar', slow, WHISTLE)).toBeUndefined();
	});

	it('outside its band it is at the crossing now', () => {
		expect(trendOf(line(49, 0), WHISTLE)?.inDays).toBe(0);
	});

	it('a faster drift never crosses later', () => {
		const slope = fc.double({ min: 0.001, max: 1, noNaN: true });
		fc.assert(
			fc.property(slope, slope, (a, b) => {
				const [slow, fast] = a < b ? [a, b] : [b, a];
				const days = (perDay: number) =>
					trendOf(line(10, perDay, 5, 1), { to: 100 })?.inDays ?? HORIZON_DAYS + 1;
				expect(days(fast)).toBeLessThanOrEqual(days(slow));
			})
		);
	});
});
