import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { chanceBelow, type FitTally, nextToTry, passRates } from './pass-rate.ts';

const tally = (model: string, size: string, passed: number, tested: number): FitTally => ({
	model,
	size,
	passed,
	tested
});

describe('pass rates', () => {
	it('of few tests are drawn towards the model, of many hardly', () => {
		const [few, many] = passRates([tally('T1', 'S', 0, 2), tally('T1', 'M', 90, 100)]);
		expect(few?.rate).toBeGreaterThan(0.5);
		expect(few?.few).toBe(true);
		expect(many?.rate).toBeCloseTo(0.9, 1);
		expect(many?.few).toBe(false);
		expect((few?.upper ?? 0) - (few?.lower ?? 0)).toBeGreaterThan(
			(many?.upper ?? 0) - (many?.lower ?? 0)
		);
	});

	it('without any test are as likely as not, and say that nothing is known', () => {
		const [one] = passRates([tally('T1', 'M', 0, 0)]);
		expect(one).toMatchObject({ rate: 0.5, few: true });
		expect((one?.upper ?? 0) - (one?.lower ?? 0)).toBeGreaterThan(0.6);
	});

	it('lie within their bounds, and a pass more never lowers one', () => {
		const any = fc
			.tuple(fc.constantFrom('T1', 'T2'), fc.constantFrom('S', 'M', 'L'), fc.nat(30), fc.nat(30))
			.map(([model, size, passed, failed]) => tally(model, size, passed, passed + failed));
		fc.assert(
			fc.property(
				fc.uniqueArray(any, { minLength: 1, maxLength: 6, selector: (t) => t.model + t.size }),
				(tallies) => {
					const before = passRates(tallies);
					for (const { lower, rate, upper } of before) {
						expect(lower).toBeGreaterThanOrEqual(0);
						expect(lower).toBeLessThanOrEqual(rate + 1e-9);
						expect(upper).toBeGreaterThanOrEqual(rate - 1e-9);
						expect(upper).toBeLessThanOrEqual(1);
					}
					const better = passRates(
						tallies.map((one, i) =>
							i === 0 ? { ...one, passed: one.passed + 1, tested: one.tested + 1 } : one
						)
					);
					expect(better[0]?.rate ?? 0).toBeGreaterThanOrEqual((before[0]?.rate ?? 0) - 1e-9);
				}
			)
		);
	});

	it('what to try next is the likeliest that did not fail already', () => {
		const rates = passRates([
			tally('T1', 'S', 2, 12),
			tally('T1', 'M', 11, 12),
			tally('T2', 'M', 9, 12)
		]);
		expect(
			nextToTry(rates, [{ model: 'T1', size: 'M' }]).map(({ model, size }) => model + size)
		).toEqual(['T2M', 'T1S']);
	});

	it('nobody passed of twelve: a rate of a third is as good as out of the question', () => {
		expect(chanceBelow(1 / 3, { passed: 0, tested: 12 })).toBeGreaterThan(0.99);
		expect(chanceBelow(0.5, { passed: 6, tested: 12 })).toBeCloseTo(0.5, 6);
	});
});
