import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { invert } from './matrix.ts';
import { regress } from './regression.ts';

describe('logistic regression', () => {
	// Published: Collett, Modelling Binary Data (1991): tobacco budworm moths, twenty of each sex at doses 1 to 32 µg; fits as in Venables &
	// Ripley, Modern Applied Statistics with S (2002), 7.2; from memory.
	const dead = [1, 4, 9, 13, 18, 20, 0, 2, 6, 10, 12, 16];
	const size = dead.map(() => 20);
	const dose = (i: number) => i % 6;
	const male = (i: number) => (i < 6 ? 1 : 0);

	it('by sex and dose', () => {
		const fit = regress({
			law: 'logistic',
			design: dead.map((_, i) => [1, male(i), dose(i)]),
			failures: dead,
			size
		});
		expect(fit?.coefficients[0]).toBeCloseTo(-3.4732, 4);
		expect(fit?.coefficients[1]).toBeCloseTo(1.1007, 4);
		expect(fit?.coefficients[2]).toBeCloseTo(1.0642, 4);
		expect(fit?.errors[0]).toBeCloseTo(0.4685, 4);
		expect(fit?.errors[1]).toBeCloseTo(0.3558, 4);
		expect(fit?.errors[2]).toBeCloseTo(0.1311, 4);
		expect(fit?.deviance).toBeCloseTo(6.7571, 3);
		expect(fit?.freedom).toBe(9);
	});

	it('with a slope for each sex', () => {
		const fit = regress({
			law: 'logistic',
			design: dead.map((_, i) => [1, male(i), dose(i), male(i) * dose(i)]),
			failures: dead,
			size
		});
		for (const [i, value] of [-2.9935, 0.175, 0.906, 0.3529].entries())
			expect(fit?.coefficients[i]).toBeCloseTo(value, 4);
		expect(fit?.deviance).toBeCloseTo(4.9937, 3);
	});

	it('without a cause is the share of all', () => {
		const fit = regress({ law: 'logistic', design: dead.map(() => [1]), failures: dead, size });
		expect(fit?.coefficients[0]).toBeCloseTo(Math.log(111 / 129), 10);
		expect(fit?.deviance).toBeCloseTo(124.8756, 3);
	});
});

describe('Poisson regression', () => {
	it('a trial of three outcomes under three treatments', () => {
		// Published: Dobson, An Introduction to Generalized Linear Models (1990), p. 93; from memory.
		const failures = [18, 17, 15, 20, 10, 20, 25, 13, 12];
		const is = (yes: boolean) => (yes ? 1 : 0);
		const fit = regress({
			law: 'poisson',
			design: failures.map((_, i) => [
				1,
				is(i % 3 === 1),
				is(i % 3 === 2),
				is(Math.floor(i / 3) === 1),
				is(Math.floor(i / 3) === 2)
			]),
			failures,
			size: failures.map(() => 1)
		});
		for (const [i, value] of [3.0445, -0.4543, -0.293, 0, 0].entries())
			expect(fit?.coefficients[i]).toBeCloseTo(value, 4);
		for (const [i, value] of [0.1709, 0.2022, 0.1927, 0.2, 0.2].entries())
			expect(fit?.errors[i]).toBeCloseTo(value, 4);
		expect(fit?.deviance).toBeCloseTo(5.1291, 4);
	});

	it('two groups give the logarithm of the ratio of their rates', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 200 }),
				fc.integer({ min: 1, max: 200 }),
				fc.integer({ min: 1, max: 9_000 }),
				fc.integer({ min: 1, max: 9_000 }),
				(a, b, n, m) => {
					const fit = regress({
						law: 'poisson',
						design: [
							[1, 0],
							[1, 1]
						],
						failures: [a, b],
						size: [n, m]
					});
					expect(fit?.coefficients[1]).toBeCloseTo(Math.log(b / m / (a / n)), 6);
					expect(fit?.errors[1]).toBeCloseTo(Math.sqrt(1 / a + 1 / b), 5);
				}
			)
		);
	});

	it('has no answer where none is best, and says so', () => {
		const alike = { law: 'poisson' as const, failures: [3, 4], size: [10, 10] };
		// Twice the same cause.
		expect(
			regress({
				...alike,
				design: [
					[1, 0, 0],
					[1, 1, 1]
				]
			})
		).toBeNull();
		// A cause without a failure: its rate runs to nothing.
		expect(
			regress({
				law: 'poisson',
				design: [
					[1, 0],
					[1, 1]
				],
				failures: [5, 0],
				size: [10, 10]
			})
		).toBeNull();
		expect(regress({ ...alike, design: [[1], [1]], failures: [0, 0] })).toBeNull();
		expect(() => regress({ ...alike, design: [[1]] })).toThrow(RangeError);
	});
});

it('a matrix times its inverse is one', () => {
	const matrix = [
		[4, 2, 0.5],
		[2, 5, 1],
		[0.5, 1, 3]
	];
	const inverse = invert(matrix) ?? [];
	matrix.forEach((row, i) =>
		inverse.forEach((_, j) => {
			const sum = row.reduce((acc, x, k) => acc + x * (inverse[k]?.[j] ?? 0), 0);
			expect(sum).toBeCloseTo(i === j ? 1 : 0, 12);
		})
	);
	expect(
		invert([
			[1, 1],
			[1, 1]
		])
	).toBeNull();
});
