import { jStat } from 'jstat';
import { describe, expect, it } from 'vitest';
import { chiSquareAbove, gammaAbove, gammaBelow, poissonAtLeast } from './gamma.ts';

describe('the incomplete gamma function', () => {
	it('gives the limits of χ² that stand in every table', () => {
		// Published: tables of χ² at 5 %; from memory.
		for (const [freedom, limit] of [
			[1, 3.841459],
			[2, 5.991465],
			[5, 11.070498],
			[10, 18.307038],
			[30, 43.772972]
		] as const)
			expect(chiSquareAbove(limit, freedom)).toBeCloseTo(0.05, 7);
	});

	it('is that of a general statistics package', () => {
		for (const a of [0.3, 0.5, 1, 2.5, 7, 30, 140])
			for (const share of [0.05, 0.4, 0.9, 1, 1.1, 1.8, 4]) {
				const x = a * share;
				expect(gammaBelow(a, x)).toBeCloseTo(jStat.gamma.cdf(x, a, 1), 9);
				expect(gammaAbove(a, x) + gammaBelow(a, x)).toBeCloseTo(1, 12);
			}
	});

	it('counts a Poisson tail as its sum does', () => {
		for (const mean of [0.01, 0.4, 3, 25])
			for (const k of [1, 2, 5, 30]) {
				let [term, below] = [Math.exp(-mean), 0];
				for (let n = 0; n < k; n++) {
					below += term;
					term *= mean / (n + 1);
				}
				let above = 0;
				for (let n = k; n < k + 200; n++) {
					above += term;
					term *= mean / (n + 1);
				}
				expect(poissonAtLeast(k, mean) / above).toBeCloseTo(1, 9);
				expect(poissonAtLeast(k, mean) + below).toBeCloseTo(1, 9);
			}
		expect(poissonAtLeast(0, 2)).toBe(1);
		expect(poissonAtLeast(1, 0)).toBe(0);
	});

	it('takes no shape of zero and no x below it', () => {
		expect(() => gammaAbove(0, 1)).toThrow(RangeError);
		expect(() => gammaBelow(1, -1)).toThrow(RangeError);
	});
});
