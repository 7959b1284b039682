import { describe, expect, it } from 'vitest';
import { processCount } from './processes.mjs';

describe('web processes', () => {
	it('are one per core up to four, and at least one', () => {
		expect([0, 1, 2, 3, 4, 16].map((cores) => processCount(undefined, cores))).toEqual([
			1, 1, 2, 3, 4, 4
		]);
		expect(processCount('', 2)).toBe(2);
	});

	it('are as many as are asked for', () => {
		expect(processCount('1', 8)).toBe(1);
		expect(processCount('12', 2)).toBe(12);
	});

	it.each(['0', '-1', '1.5', 'all', '65'])('are refused by name where they are %s', (asked) => {
		expect(() => processCount(asked)).toThrow(/GREVAN_PROCESSES/);
	});
});
