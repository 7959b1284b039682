import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../plan/calendar.ts';
import {
	FACE_CHANGES,
	type FitTest,
	fitUntil,
	judgeFitTest,
	methodServes,
	type ReportedChange
} from './fit-standing.ts';

const test = (part: Partial<FitTest> = {}): FitTest => ({
	model: 'T1',
	size: 'M',
	on: '2025-11-27',
	method: 'quantitative',
	passed: true,
	...part
});
const change = (on: string, at?: string): ReportedChange => ({
	what: 'dental',
	on,
	...(at ? { at } : {})
});
const rules = (one: FitTest, changes: ReportedChange[], asOf: string) =>
	judgeFitTest(one, changes, asOf).reasons.map(({ rule }) => rule);

describe('a fit test', () => {
	// Published: 1910.134(f)(2), yearly; the same day a year later is the last one that counts.
	it.each([
		['2025-11-27', '2026-11-27', 'counts'],
		['2025-11-27', '2026-11-28', 'does not'],
		['2024-02-29', '2025-02-28', 'counts'],
		['2024-02-29', '2025-03-01', 'does not'],
		['2026-11-28', '2026-11-27', 'does not']
	])('of %s on %s: %s', (on, asOf, outcome) =>
		expect(judgeFitTest(test({ on }), [], asOf).outcome).toBe(outcome)
	);

	it('that was not passed never counts', () =>
		expect(rules(test({ passed: false }), [], '2025-12-01')).toEqual(['fit.failed']));

	it('ends with a change on the day that it is reported, not before it, and not by an older one', () => {
		expect(rules(test(), [change('2026-03-02')], '2026-03-01')).toEqual(['fit.counts']);
		expect(rules(test(), [change('2026-03-02')], '2026-03-02')).toEqual(['fit.changed']);
		expect(rules(test(), [change('2025-11-26')], '2026-03-02')).toEqual(['fit.counts']);
	});

	it('of the day of a change counts only where it was made after it', () => {
		const day = '2025-11-27';
		const at = (hour: number) => `${day}T${String(hour).padStart(2, '0')}:00:00Z`;
		expect(rules(test(), [change(day)], day)).toEqual(['fit.changed']);
		expect(rules(test({ at: at(14) }), [change(day, at(9))], day)).toEqual(['fit.counts']);
		expect(rules(test({ at: at(9) }), [change(day, at(14))], day)).toEqual(['fit.changed']);
	});

	it('says every reason at once', () =>
		expect(rules(test({ passed: false }), [change('2026-03-02')], '2027-01-01')).toEqual([
			'fit.failed',
			'fit.lapsed',
			'fit.changed'
		]));

	it('a change more never makes one count, a day more never either once it counted', () => {
		const day = fc.integer({ min: 0, max: 500 }).map((n) => plusDays('2025-11-27', n));
		const changes = fc.array(fc.record({ what: fc.constantFrom(...FACE_CHANGES), on: day }), {
			maxLength: 3
		});
		fc.assert(
			fc.property(
				changes,
				fc.record({ what: fc.constantFrom(...FACE_CHANGES), on: day }),
				day,
				day,
				(list, more, one, other) => {
					const counts = (of: ReportedChange[], asOf: string) =>
						Number(judgeFitTest(test(), of, asOf).outcome === 'counts');
					expect(counts([...list, more], one)).toBeLessThanOrEqual(counts(list, one));
					const [early = '', late = ''] = [one, other].sort();
					expect(counts(list, late)).toBeLessThanOrEqual(counts(list, early));
				}
			)
		);
		expect(fitUntil('2025-11-27')).toBe('2026-11-27');
	});

	// Published: app. A and 1910.134(f)(5) to (7), qualitative up to 10; UK pack: none for a full face; from memory.
	it.each([
		['quantitative', 2000, true, 'uk', true],
		['qualitative', 10, false, 'uk', true],
		['qualitative', 10.1, false, 'us', false],
		['qualitative', 10, true, 'us', true],
		['qualitative', 5, true, 'uk', false]
	] as const)(
		'%s for a factor of %d, full face %s, under %s: %s',
		(method, requiredFactor, fullFace, ruleSet, serves) =>
			expect(methodServes(method, { requiredFactor, fullFace, ruleSet })).toBe(serves)
	);
});
