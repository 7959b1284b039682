import { addDays, addMonths, differenceInCalendarDays, format, parseISO } from 'date-fns';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, plusDays, plusMonths, readable } from './calendar.ts';

const day = fc.integer({ min: 0, max: 109_000 }).map((n) => plusDays('1900-01-01', n));

describe('days', () => {
	// The calendar is Gregorian (ISO 8601, from memory): 2000 is a leap year, 1900 and 2100 are none.
	it.each([
		['2000-02-28', 1, '2000-02-29'],
		['1900-02-28', 1, '1900-03-01'],
		['2100-02-28', 1, '2100-03-01'],
		['2026-12-31', 1, '2027-01-01'],
		['2026-03-29', 1, '2026-03-30'],
		['2026-10-25', -1, '2026-10-24']
	])('%s and %i more is %s', (from, days, to) => {
		expect(plusDays(from, days)).toBe(to);
		expect(daysBetween(from, to)).toBe(days);
	});

	it('are what the calendar library has, over three hundred years', () => {
		fc.assert(
			fc.property(day, fc.integer({ min: -4000, max: 4000 }), (from, days) => {
				const to = plusDays(from, days);
				expect(to).toBe(format(addDays(parseISO(from), days), 'yyyy-MM-dd'));
				expect(daysBetween(from, to)).toBe(days);
				expect(daysBetween(to, from)).toBe(differenceInCalendarDays(parseISO(from), parseISO(to)));
			})
		);
	});

	it('are read as the calendar library writes them', () => {
		fc.assert(
			fc.property(day, (one) => {
				expect(readable(one)).toBe(format(parseISO(one), 'd MMM yyyy'));
			})
		);
		expect(() => readable('someday')).toThrow(RangeError);
	});

	it('are refused where the text is none', () => {
		expect(() => plusDays('tomorrow', 1)).toThrow(RangeError);
		expect(() => plusDays('', 1)).toThrow(RangeError);
		expect(() => plusMonths('soon', 1)).toThrow(RangeError);
	});

	it('of a month that is shorter are its last, as the calendar library has it', () => {
		expect(plusMonths('2026-01-31', 1)).toBe('2026-02-28');
		expect(plusMonths('2024-02-29', -12)).toBe('2023-02-28');
		fc.assert(
			fc.property(day, fc.integer({ min: -400, max: 400 }), (from, months) => {
				expect(plusMonths(from, months)).toBe(
					format(addMonths(parseISO(from), months), 'yyyy-MM-dd')
				);
			})
		);
	});
});
