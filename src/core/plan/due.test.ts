import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { daysBetween, plusDays, plusMonths } from './calendar.ts';
import { judgeDue } from './due.ts';

describe('due dates', () => {
	// Common practice: a month ends on its last day; from the calendar itself.
	it.each([
		['2026-01-31', 1, '2026-02-28'],
		['2028-01-31', 1, '2028-02-29'],
		['2026-08-31', 6, '2027-02-28'],
		['2026-11-24', 1, '2026-12-24'],
		['2026-11-30', 3, '2027-02-28']
	])('%s and %i months is %s', (day, months, expected) =>
		expect(plusMonths(day, months)).toBe(expected)
	);

	it.each([
		['2026-11-30', 'ready'],
		['2026-12-10', 'ready'],
		['2026-12-11', 'due'],
		['2026-12-18', 'due'],
		['2026-12-19', 'overdue']
	])('monthly from 18 November with a week before it: on %s it is %s', (asOf, state) => {
		const due = judgeDue({
			rules: [{ every: { months: 1 }, window: 7 }],
			last: '2026-11-18',
			asOf
		});
		expect(due).toMatchObject({ dueOn: '2026-12-18', dueFrom: '2026-12-11', state });
	});

	it('lets the earliest of all rules win and the worst state stand', () => {
		const due = judgeDue({
			rules: [{ every: { months: 6 } }, { every: { days: 30 } }, { every: { uses: 5 }, window: 1 }],
			last: '2026-11-01',
			usesSince: 4,
			asOf: '2026-11-24'
		});
		expect(due).toMatchObject({ dueOn: '2026-12-01', state: 'due' });
		expect(due.reasons).toHaveLength(3);
	});

	it.each([
		[{ uses: 10 }, 9, 'ready'],
		[{ uses: 10 }, 10, 'overdue']
	])('%o after %i uses is %s', (every, usesSince, state) =>
		expect(
			judgeDue({ rules: [{ every }], last: '2026-11-01', usesSince, asOf: '2026-11-24' }).state
		).toBe(state)
	);

	it('counts what was never done as overdue', () => {
		expect(judgeDue({ rules: [], last: null, asOf: '2026-11-24' }).state).toBe('overdue');
	});

	it.each(['24.11.2026', '2026-02-30', '', '2026-13-01'])('refuses the date "%s"', (last) =>
		expect(() => judgeDue({ rules: [], last, asOf: '2026-11-24' })).toThrow(/is no date/)
	);

	it('never turns back to a better state as the days go by', () => {
		const rank = { ready: 0, due: 1, overdue: 2 };
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 24 }),
				fc.integer({ min: 0, max: 40 }),
				fc.integer({ min: 0, max: 900 }),
				fc.integer({ min: 0, max: 60 }),
				(months, window, after, more) => {
					const at = (n: number) =>
						judgeDue({
							rules: [{ every: { months }, window }],
							last: '2026-03-31',
							asOf: plusDays('2026-03-31', n)
						});
					expect(rank[at(after + more).state]).toBeGreaterThanOrEqual(rank[at(after).state]);
					expect(daysBetween('2026-03-31', at(after).dueOn ?? '')).toBeGreaterThan(months * 27);
				}
			)
		);
	});
});
