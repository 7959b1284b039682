import { describe, expect, it } from 'vitest';
import {
	checkCylinder,
	cylinderDates,
	freshUntil,
	mayFill,
	mayFit,
	type CylinderFacts
} from './cylinder.ts';
import { failedAfter, sourceState, type SourceTest } from './source.ts';

const stamp = {
	waterVolumeL: 6.8,
	ratedBar: 300,
	maximumBar: 450,
	material: 'composite' as const,
	emptyKg: 3.9,
	thread: 'M18 × 1.5',
	manufacturedOn: '2019-05-31',
	lifeEndsOn: null,
	testYears: null
};

describe('dates of a cylinder', () => {
	// Published: five years in both regions, composite life 15 years in the US; from memory.
	it('come from its last test, the rule set and its stamp, the earliest first', () => {
		expect(cylinderDates(stamp, null, 'uk')).toMatchObject({
			testBy: '2024-05-31',
			lifeEndsOn: null,
			lastDay: '2024-05-31'
		});
		expect(cylinderDates(stamp, '2024-04-30', 'us')).toMatchObject({
			testBy: '2029-04-30',
			lifeEndsOn: '2034-05-31',
			lastDay: '2029-04-30'
		});
		const stamped = { ...stamp, lifeEndsOn: '2028-12-31' };
		expect(cylinderDates(stamped, '2024-04-30', 'us').lastDay).toBe('2028-12-31');
		expect(cylinderDates({ ...stamp, material: 'steel' }, null, 'us').lifeEndsOn).toBeNull();
	});

	it('follow a stamp that asks for more, and not one that asks for less', () => {
		expect(cylinderDates({ ...stamp, testYears: 3 }, '2024-02-29', 'uk').testBy).toBe('2027-02-28');
		expect(cylinderDates({ ...stamp, testYears: 10 }, '2024-02-29', 'uk').testBy).toBe(
			'2029-02-28'
		);
	});

	it('are refused where they cannot be', () => {
		expect(() => checkCylinder({ ...stamp, waterVolumeL: 6800 })).toThrow(/6.8 L/);
		expect(() => checkCylinder({ ...stamp, maximumBar: 250 })).toThrow(/at or above the rated/);
		expect(() => checkCylinder({ ...stamp, ratedBar: 4350 })).toThrow(/outside 20 to 500/);
		expect(() => checkCylinder({ ...stamp, lifeEndsOn: '2019-05-31' })).toThrow(/after it was/);
		expect(() => checkCylinder({ ...stamp, testYears: 2.5 })).toThrow(/whole number of years/);
		expect(() => checkCylinder(stamp)).not.toThrow();
	});
});

describe('what may be filled and fitted', () => {
	const facts = (part: Partial<CylinderFacts> = {}): CylinderFacts => ({
		dates: cylinderDates(stamp, '2024-04-30', 'uk'),
		testFailed: false,
		location: 'rack',
		inSet: null,
		pressureBar: 40,
		lookedInside: false,
		faults: [],
		airFailed: null,
		freshUntil: null,
		...part
	});
	const TODAY = '2026-11-24';

	it('is one in date, without a fault, with air left in it', () => {
		expect(mayFill(facts({ location: 'filling' }), TODAY).outcome).toBe('may');
		expect(mayFit(facts({ pressureBar: 290 }), TODAY).outcome).toBe('may');
	});

	it.each([
		['past its test', { dates: cylinderDates(stamp, '2021-11-23', 'uk') }, /Past its test/],
		['with a fault', { faults: ['DENTC, dented'] }, /Open fault: DENTC/],
		['with an unknown rest', { pressureBar: null }, /not known: read its gauge/],
		['that failed its test', { testFailed: true }, /failed its periodic test/],
		['at the test house', { location: 'test house' as const }, /book it in/],
		['in a set', { inSet: 'BA-0201' }, /on BA-0201/]
	])('is not one %s', (_, part, why) => {
		for (const verdict of [mayFill(facts(part), TODAY), mayFit(facts(part), TODAY)]) {
			expect(verdict.outcome).toBe('refused');
			expect(verdict.reasons.map((r) => r.text).join(' ')).toMatch(why);
		}
	});

	it('may be used on its last day, by test or by life, and not the day after', () => {
		const ends = { dates: cylinderDates({ ...stamp, lifeEndsOn: TODAY }, '2024-04-30', 'uk') };
		expect(mayFill(facts(ends), TODAY).outcome).toBe('may');
		expect(mayFit(facts(ends), '2026-11-25').reasons[0]?.text).toMatch(/Its life ended/);
	});

	// Common practice: fresh air in stored cylinders yearly.
	it('is filled anew within a year', () => {
		expect(freshUntil('2025-11-24')).toBe(TODAY);
		expect(freshUntil('2024-02-29')).toBe('2025-02-28');
		expect(freshUntil(null)).toBeNull();
		const old = facts({ freshUntil: TODAY });
		expect(mayFit(old, TODAY).outcome).toBe('may');
		expect(mayFit(old, '2026-11-25').reasons[0]?.text).toMatch(/older than a year/);
		expect(mayFill(old, '2026-11-25').outcome).toBe('may');
	});

	it('empty is looked at inside before it is filled', () => {
		expect(mayFill(facts({ pressureBar: 0 }), TODAY).reasons[0]?.text).toMatch(/inside/);
		expect(mayFill(facts({ pressureBar: 0, lookedInside: true }), TODAY).outcome).toBe('may');
	});

	it('with air that failed is let down before it is filled, and never fitted', () => {
		const airFailed = { source: 'Compressor 1', on: '2026-11-20' };
		expect(mayFill(facts({ airFailed, pressureBar: 290 }), TODAY).outcome).toBe('refused');
		expect(mayFill(facts({ airFailed, pressureBar: 4 }), TODAY).outcome).toBe('may');
		expect(mayFit(facts({ airFailed, pressureBar: 4 }), TODAY).outcome).toBe('refused');
	});
});

describe('a source of air', () => {
	const test = (on: string, outcome: SourceTest['outcome']): SourceTest => ({
		id: on,
		at: Date.parse(`${on}T10:00:00Z`),
		on,
		outcome
	});
	const good = test('2026-09-01', 'pass');

	// Common practice: quarterly at least.
	it('gives out air for three months after a good test, and not after work on it', () => {
		const at = (day: string) => sourceState({ tests: [good], workedAt: null }, day);
		expect(at('2026-12-01')).toMatchObject({ outcome: 'in force', testId: good.id });
		expect(at('2026-12-02')).toMatchObject({ outcome: 'overdue', testId: null });
		expect(sourceState({ tests: [good], workedAt: good.at + 1 }, '2026-09-02').outcome).toBe(
			'untested'
		);
		expect(sourceState({ tests: [], workedAt: null }, '2026-09-02').outcome).toBe('untested');
	});

	it('goes by its last test, whatever the order they are entered in; half a test counts for nothing', () => {
		const tests = [test('2026-10-01', 'fail'), good];
		expect(sourceState({ tests, workedAt: null }, '2026-10-02').outcome).toBe('failed');
		const half = [good, test('2026-10-01', 'incomplete')];
		expect(sourceState({ tests: half, workedAt: null }, '2026-10-02').testId).toBe(good.id);
	});

	it('puts what was filled since the last good test under the failed one', () => {
		const bad = test('2026-10-01', 'fail');
		const later = test('2026-10-10', 'pass');
		expect(failedAfter(good.at + 1, good.at + 2, [later, bad, good])).toBe(bad);
		expect(failedAfter(good.at - 2, good.at - 1, [good, bad])).toBeNull();
		expect(failedAfter(bad.at + 1, bad.at + 2, [bad, later])).toBeNull();
		expect(failedAfter(later.at + 1, later.at + 2, [bad, later])).toBeNull();
		// A sample of the very fill: a bad one holds it, a good one covers only what was in by then.
		expect(failedAfter(bad.at - 1, bad.at + 1, [bad, later])).toBe(bad);
		expect(failedAfter(good.at - 1, good.at + 1, [good, bad])).toBe(bad);
		expect(failedAfter(good.at - 1, good.at + 1, [good, later])).toBeNull();
	});
});
