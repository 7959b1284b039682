import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputError } from '../verdict.ts';
import { readTraceCsv, writeTraceCsv } from './trace-csv.ts';

describe('a trace as CSV', () => {
	it('comes back as it went out', () => {
		const reading = fc.record({
			step: fc.integer({ min: 1, max: 20 }),
			pa: fc
				.double({ min: -2000, max: 2000, noNaN: true })
				.map((v) => Math.round(v * 100) / 100 + 0),
			temperatureC: fc.option(fc.integer({ min: -10, max: 40 }), { nil: undefined })
		});
		fc.assert(
			fc.property(fc.array(reading, { minLength: 1, maxLength: 40 }), (list) => {
				let s = 0;
				const samples = list.map(({ step, pa, temperatureC }) => ({
					s: (s += step) / 2,
					pa,
					...(temperatureC === undefined ? {} : { temperatureC })
				}));
				expect(readTraceCsv(writeTraceCsv(samples))).toEqual(samples);
			})
		);
	});

	it('is read with other headings, a decimal comma and a semicolon', () =>
		expect(readTraceCsv('Seconds;Pressure\n0,5;1650,25\n1;1649\n')).toEqual([
			{ s: 0.5, pa: 1650.25 },
			{ s: 1, pa: 1649 }
		]));

	it.each([
		['s,Pa\n0,high\n', /Row 2, Pa: “high” is not a number/],
		['s,Pa\n0,1\n0,1\n', /Row 3: its time is not after/],
		['s,temperature C\n0,1\n', /lacks “Pa”/],
		['', /no row below/]
	])('%j is refused', (text, expected) => {
		try {
			readTraceCsv(text);
			expect.unreachable('it was read');
		} catch (error) {
			expect(error).toBeInstanceOf(InputError);
			expect((error as Error).message).toMatch(expected);
		}
	});
});
