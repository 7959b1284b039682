import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { betaProbability, betaQuantile, logGamma } from './beta.ts';

describe('the beta distribution', () => {
	it('ln Γ is that of the factorials, and of one half', () => {
		let factorial = 1;
		for (let n = 1; n <= 20; n++) {
			expect(logGamma(n)).toBeCloseTo(Math.log(factorial), 10);
			factorial *= n;
		}
		expect(logGamma(0.5)).toBeCloseTo(Math.log(Math.sqrt(Math.PI)), 12);
	});

	it('equals the sum of the binomial one for whole shapes', () => {
		// I_x(a, b) = P(Binomial(a + b − 1, x) ≥ a). Published: Abramowitz & Stegun 26.5.24; from memory.
		for (const [a, b, x] of [
			[8, 4, 0.5],
			[2, 2, 0.5],
			[3, 9, 0.2],
			[20, 5, 0.9]
		] as const) {
			const n = a + b - 1;
			let [sum, choose] = [0, 1];
			for (let k = 0; k <= n; k++) {
				if (k >= a) sum += choose * x ** k * (1 - x) ** (n - k);
				choose = (choose * (n - k)) / (k + 1);
			}
			expect(betaProbability(x, a, b)).toBeCloseTo(sum, 10);
		}
		expect(betaProbability(0.5, 8, 4)).toBeCloseTo(232 / 2048, 12);
	});

	it('gives the exact interval of 7 of 10 that the books print: 0.3475 to 0.9333', () => {
		// Published: Clopper & Pearson 1934, from memory.
		expect(betaQuantile(0.025, 7, 4)).toBeCloseTo(0.3475, 4);
		expect(betaQuantile(0.975, 8, 3)).toBeCloseTo(0.9333, 4);
	});

	it('is turned back by its quantile, and mirrored by swapping its shapes', () => {
		const shape = fc.double({ min: 0.3, max: 200, noNaN: true });
		fc.assert(
			fc.property(shape, shape, fc.double({ min: 0.001, max: 0.999, noNaN: true }), (a, b, p) => {
				const x = betaQuantile(p, a, b);
				if (x > 1e-12 && x < 1 - 1e-12) expect(betaProbability(x, a, b)).toBeCloseTo(p, 6);
				expect(betaProbability(x, a, b) + betaProbability(1 - x, b, a)).toBeCloseTo(1, 6);
			})
		);
	});
});
