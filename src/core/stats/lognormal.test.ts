import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputError } from '../verdict.ts';
import { summariseExposure } from './lognormal.ts';
import { normalProbability, normalQuantile, toleranceFactor } from './tolerance.ts';

describe('the normal distribution', () => {
	// Published: any table of the normal distribution.
	it.each([
		[0, 0.5],
		[1, 0.8413447],
		[1.644854, 0.95],
		[1.959964, 0.975],
		[3, 0.9986501],
		[5, 0.9999997]
	])('P(z < %f) = %f', (z, p) => {
		expect(normalProbability(z)).toBeCloseTo(p, 6);
		expect(normalProbability(-z)).toBeCloseTo(1 - p, 6);
	});
	it('has an inverse', () => expect(normalQuantile(0.95)).toBeCloseTo(1.6448536, 6));
});

describe('one-sided tolerance factors', () => {
	// Published: EN 689:2018, annex F, table of U_T (95th percentile, 70 % confidence); from memory.
	it.each([
		[6, 2.187],
		[7, 2.12],
		[8, 2.072],
		[9, 2.035],
		[10, 2.005],
		[12, 1.961],
		[20, 1.87],
		[30, 1.82]
	])('%i measurements: %f', (n, k) => expect(toleranceFactor(n, 0.95, 0.7)).toBeCloseTo(k, 2.9));

	// Published: Hahn & Meeker, Statistical Intervals, 95 % coverage at 95 % confidence; from memory.
	it.each([
		[10, 2.911],
		[20, 2.396]
	])('at 95 %% confidence, %i: %f', (n, k) =>
		expect(toleranceFactor(n, 0.95, 0.95)).toBeCloseTo(k, 2.9)
	);
});

describe('a set of exposure measurements', () => {
	it('is summarised by its logarithms', () => {
		// By hand: ln 10, ln 20, ln 40 have the mean ln 20 and the standard deviation ln 2.
		const s = summariseExposure([10, 20, 40]);
		expect(s.geometricMean).toBeCloseTo(20, 9);
		expect(s.geometricStandardDeviation).toBeCloseTo(2, 9);
		expect(s.percentile95).toBeCloseTo(20 * 2 ** 1.6448536, 4);
		expect(s.upperLimit95).toBeGreaterThan(s.percentile95);
		expect([s.lowest, s.highest, s.n]).toEqual([10, 40, 3]);
	});

	it('scales with the unit, and the limit never lies below the percentile', () => {
		const values = fc.array(fc.double({ min: 0.01, max: 1000, noNaN: true }), {
			minLength: 3,
			maxLength: 12
		});
		fc.assert(
			fc.property(values, fc.double({ min: 0.1, max: 10, noNaN: true }), (list, factor) => {
				const [one, other] = [
					summariseExposure(list),
					summariseExposure(list.map((v) => v * factor))
				];
				expect(other.upperLimit95 / one.upperLimit95).toBeCloseTo(factor, 6);
				expect(one.upperLimit95).toBeGreaterThanOrEqual(one.percentile95 * (1 - 1e-9));
			}),
			{ numRuns: 40 }
		);
	});

	it.each([
		['two values', [1, 2], 'values'],
		['a zero', [1, 0, 2], 'values[1]'],
		['no number', [1, 2, NaN], 'values[2]']
	])('refuses %s, located', (_, values, path) => {
		try {
			summariseExposure(values);
			expect.unreachable('it was accepted');
		} catch (error) {
			expect(error).toBeInstanceOf(InputError);
			expect((error as InputError).path).toBe(path);
		}
	});
});
