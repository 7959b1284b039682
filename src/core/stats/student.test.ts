import { describe, expect, it } from 'vitest';
import { normalQuantile } from './tolerance.ts';
import { studentProbability, studentQuantile } from './student.ts';

describe('Student’s t', () => {
	// Published: table of the t distribution, as in any text of statistics; from memory.
	it.each([
		[0.95, 1, 6.314],
		[0.95, 2, 2.92],
		[0.95, 3, 2.353],
		[0.95, 5, 2.015],
		[0.95, 10, 1.812],
		[0.95, 30, 1.697],
		[0.975, 4, 2.776],
		[0.99, 7, 2.998]
	])('has its %s quantile for %i degrees of freedom at %f', (p, freedom, t) => {
		expect(studentQuantile(p, freedom)).toBeCloseTo(t, 3);
		expect(studentProbability(t, freedom)).toBeCloseTo(p, 4);
	});

	it('comes to the normal distribution and is even about its middle', () => {
		expect(studentQuantile(0.95, 2000)).toBeCloseTo(normalQuantile(0.95), 2);
		expect(studentProbability(-1.3, 6) + studentProbability(1.3, 6)).toBeCloseTo(1, 12);
		expect(() => studentQuantile(0.95, 0)).toThrow(RangeError);
	});
});
