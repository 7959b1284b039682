import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { plusDays } from '../plan/calendar.ts';
import type { FitTest } from './fit-standing.ts';
import { ASKED_FOR_DAYS, lapsesOf, type WearerLapsing } from './people-due.ts';

const TODAY = '2026-11-27';
const test = (on: string, part: Partial<FitTest> = {}): FitTest => ({
	model: 'T1',
	size: 'M',
	on,
	method: 'quantitative',
	passed: true,
	...part
});
const who = (part: Partial<WearerLapsing> = {}): WearerLapsing => ({
	clearedUntil: null,
	trainedUntil: null,
	tests: [],
	changes: [],
	...part
});
const said = (wearer: WearerLapsing, ahead = 14) =>
	lapsesOf(wearer, TODAY, plusDays(TODAY, ahead)).map(({ says }) => says);

describe('what of a wearer lapses', () => {
	// Published: 1910.134(f)(2), yearly; from memory.
	it('says a test a year after it, and only the last one of each mask', () => {
		expect(said(who({ tests: [test('2024-12-01'), test('2025-12-05')] }))).toEqual([
			'Fit test with T1, size M, last day 5 Dec 2026'
		]);
		expect(said(who({ tests: [test('2025-12-05'), test('2026-06-01')] }))).toEqual([]);
		expect(
			said(who({ tests: [test('2025-12-05'), test('2025-12-06', { size: 'L' })] }))
		).toHaveLength(2);
	});

	it('says what lapsed, for as long as it is asked for', () => {
		expect(said(who({ tests: [test('2025-11-20')] }))).toEqual([
			'Fit test with T1, size M, lapsed on 20 Nov 2026'
		]);
		const old = plusDays(plusDays(TODAY, -ASKED_FOR_DAYS - 1), -365);
		expect(said(who({ tests: [test(old)] }))).toEqual([]);
	});

	it('says a test that a change ended, however fresh it is', () =>
		expect(
			said(who({ tests: [test('2026-10-01')], changes: [{ what: 'weight', on: '2026-11-24' }] }))
		).toEqual([
			'Fit test with T1, size M, ended on 24 Nov 2026: weight changed by a tenth or more'
		]));

	it('does not ask for a mask that was failed since', () =>
		expect(
			said(who({ tests: [test('2025-12-05'), test('2026-11-01', { passed: false })] }))
		).toEqual([]));

	it('says clearance and training', () =>
		expect(said(who({ clearedUntil: '2026-11-20', trainedUntil: '2026-12-01' }))).toEqual([
			'Clearance, lapsed on 20 Nov 2026',
			'Training, last day 1 Dec 2026'
		]));

	it('says no less the further it looks, the earliest first', () => {
		const day = fc.integer({ min: -500, max: 120 }).map((n) => plusDays(TODAY, n));
		fc.assert(
			fc.property(
				fc.array(day, { maxLength: 5 }),
				fc.option(day, { nil: null }),
				fc.nat(60),
				(tests, clearedUntil, ahead) => {
					const wearer = who({ clearedUntil, tests: tests.sort().map((on) => test(on)) });
					const near = lapsesOf(wearer, TODAY, plusDays(TODAY, ahead));
					const far = lapsesOf(wearer, TODAY, plusDays(TODAY, ahead + 30));
					expect(far).toEqual(expect.arrayContaining(near));
					expect(far.map(({ on }) => on)).toEqual(far.map(({ on }) => on).sort());
				}
			)
		);
	});
});
