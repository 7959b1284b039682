import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compareGroups } from './exact.ts';
import { falseDiscovery } from './false-discovery.ts';
import { wilson } from './wilson.ts';

const groups = (...rows: [number, number][]) =>
	rows.map(([failures, trials]) => ({ failures, trials }));

describe('the interval of a share', () => {
	// Published: Newcombe, Statistics in Medicine 17 (1998) 857, table I, method 3; from memory.
	it.each([
		[81, 263, 0.2553, 0.3662],
		[15, 148, 0.0624, 0.1605],
		[0, 20, 0, 0.1611],
		[1, 29, 0.0061, 0.1718]
	])('%i of %i', (failures, trials, lower, upper) => {
		const share = wilson(failures, trials);
		expect(share.lower).toBeCloseTo(lower, 4);
		expect(share.upper).toBeCloseTo(upper, 4);
	});

	it('holds its rate, lies between 0 and 1, and turns over with what is counted', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 5_000 }), fc.nat(5_000), (trials, some) => {
				const failures = some % (trials + 1);
				const share = wilson(failures, trials);
				const other = wilson(trials - failures, trials);
				expect(share.lower).toBeGreaterThanOrEqual(0);
				expect(share.lower).toBeLessThanOrEqual(share.rate);
				expect(share.upper).toBeGreaterThanOrEqual(share.rate);
				expect(share.upper).toBeLessThanOrEqual(1);
				expect(share.lower).toBeCloseTo(1 - other.upper, 10);
			})
		);
	});

	it('takes no counts that cannot be', () => {
		expect(() => wilson(1, 0)).toThrow(RangeError);
		expect(() => wilson(3, 2)).toThrow(RangeError);
	});
});

describe('groups compared', () => {
	it('the tea of a lady: 3 of 4 against 1 of 4', () => {
		// Published: Fisher, The Design of Experiments (1935); two-sided 34/70; from memory.
		const { pValue, by } = compareGroups(groups([3, 4], [1, 4]));
		expect(by).toBe('exact');
		expect(pValue).toBeCloseTo(34 / 70, 10);
	});

	it('twins of convicts: 10 of 13 against 2 of 17', () => {
		// Published: Fisher 1962, after Lange; two-sided 0.0005367; from memory.
		expect(compareGroups(groups([10, 13], [2, 17])).pValue).toBeCloseTo(0.0005367, 7);
	});

	it('four groups of smokers among patients, by χ²', () => {
		// Published: Fleiss, Statistical Methods for Rates and Proportions (1981), p. 139: X² 12.6004, p 0.005585; from memory.
		const { pValue, by } = compareGroups(groups([83, 86], [90, 93], [129, 136], [70, 82]));
		expect(by).toBe('chi-square');
		expect(pValue).toBeCloseTo(0.005585, 6);
	});

	it('three groups: every table counted by hand', () => {
		// 2 of 2, 0 of 3, 0 of 3: of the C(8,2) = 28 ways, only the first has both in the pair of two.
		const { pValue, by } = compareGroups(groups([2, 2], [0, 3], [0, 3]));
		expect(by).toBe('exact');
		// Tables: (2,0,0) 1, (0,2,0) 3, (0,0,2) 3, (1,1,0) 6, (1,0,1) 6, (0,1,1) 9.
		expect(pValue).toBeCloseTo(1 / 28, 12);
		expect(compareGroups(groups([0, 2], [2, 3], [0, 3])).pValue).toBeCloseTo(7 / 28, 12);
	});

	it('is the same in any order, and for what did not fail', () => {
		const some = fc.array(
			fc
				.tuple(fc.nat(6), fc.nat(20))
				.map(([failures, good]) => ({ failures, trials: failures + good + 1 })),
			{ minLength: 2, maxLength: 5 }
		);
		fc.assert(
			fc.property(some, (rows) => {
				const { pValue } = compareGroups(rows);
				expect(pValue).toBeGreaterThan(0);
				expect(pValue).toBeLessThanOrEqual(1);
				const again = compareGroups([...rows].reverse());
				const good = compareGroups(rows.map((g) => ({ ...g, failures: g.trials - g.failures })));
				// Drawn tables differ by their draw.
				const digits = again.by === 'drawn' || good.by === 'drawn' ? 1 : 9;
				expect(again.pValue).toBeCloseTo(pValue, digits);
				expect(good.pValue).toBeCloseTo(pValue, digits);
			}),
			{ numRuns: 60 }
		);
	});

	it('draws tables where there are too many to count, near what is counted', () => {
		const many = Array.from({ length: 24 }, (_, i) => ({ failures: i === 0 ? 20 : 1, trials: 40 }));
		const { by, pValue } = compareGroups(many);
		expect(by).toBe('drawn');
		expect(pValue).toBeLessThan(0.01);
		const alike = compareGroups(many.map((g) => ({ ...g, failures: 1 })));
		expect(alike.pValue).toBeGreaterThan(0.9);
	});

	it('a small group among a million is still answered', () => {
		const { pValue } = compareGroups(groups([9, 10], [100_000, 1_000_000]));
		expect(pValue).toBeLessThan(1e-6);
		const wide = Array.from({ length: 1_000 }, () => ({ failures: 100, trials: 1_000_000 }));
		expect(compareGroups([...wide, { failures: 1, trials: 2 }]).by).toBe('chi-square');
	});

	it('says nothing against groups without a failure', () => {
		expect(compareGroups(groups([0, 5], [0, 9]))).toEqual({ pValue: 1, by: 'exact' });
	});

	it('takes no counts that cannot be', () => {
		expect(() => compareGroups(groups([1, 2]))).toThrow(RangeError);
		expect(() => compareGroups(groups([1, 2], [3, 2]))).toThrow(RangeError);
		expect(() => compareGroups(groups([1, 2], [0.5, 2]))).toThrow(RangeError);
	});
});

describe('many tests at once', () => {
	// Published: Benjamini & Hochberg 1995, section 4: fifteen tests of a trial; from memory.
	const TRIAL = [
		0.0001, 0.0004, 0.0019, 0.0095, 0.0201, 0.0278, 0.0298, 0.0344, 0.0459, 0.324, 0.4262, 0.5719,
		0.6528, 0.759, 1
	];

	it('finds the first four at one in twenty', () => {
		const adjusted = falseDiscovery(TRIAL);
		expect(adjusted.filter((p) => p <= 0.05)).toHaveLength(4);
		// The fourth: 0.0095 · 15 / 4.
		expect(adjusted[3]).toBeCloseTo(0.035625, 10);
	});

	it('keeps order, never goes below what it was, and is 1 at most', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { maxLength: 40 }),
				(all) => {
					const adjusted = falseDiscovery(all);
					adjusted.forEach((p, i) => {
						expect(p).toBeGreaterThanOrEqual(all[i] ?? 0);
						expect(p).toBeLessThanOrEqual(1);
						all.forEach((other, j) => {
							if (other < (all[i] ?? 0)) expect(adjusted[j]).toBeLessThanOrEqual(p);
						});
					});
				}
			)
		);
	});
});
