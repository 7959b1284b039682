import { describe, expect, it } from 'vitest';
import { afterFit, type TestMade } from './after.ts';
import {
	agentsFor,
	beforeTest,
	DOSE_EVERY_S,
	FIT_AGENTS,
	fitAgent,
	QUALITATIVE_EXERCISES,
	QUALITATIVE_S,
	qualitativeNow,
	SCREENING_SQUEEZES,
	squeezesFor
} from './agents.ts';

const test = (model: string, passed: boolean, size = 'M'): TestMade => ({ model, size, passed });

describe('what follows a fit test', () => {
	// Common practice: put on anew once, then another mask, then none that seals.
	it.each([
		[[], 'done'],
		[[test('A', true)], 'done'],
		[[test('A', false)], 'put it on anew'],
		[[test('A', false), test('A', true)], 'done'],
		[[test('A', false), test('A', false)], 'another mask'],
		[[test('A', false), test('A', false), test('B', false)], 'put it on anew'],
		[[test('A', false), test('A', false), test('A', false, 'L')], 'put it on anew'],
		[[test('A', false), test('A', false), test('B', false), test('B', false)], 'loose-fitting'],
		[[test('A', false), test('A', false), test('B', false), test('B', true)], 'done'],
		[[test('A', true), test('A', false)], 'put it on anew']
	] as const)('%j: %s', (made, outcome) => expect(afterFit(made).outcome).toBe(outcome));
});

describe('a qualitative test', () => {
	// Published: 29 CFR 1910.134 app. A, part I A 14 and B 3 (saccharin): seven exercises of a minute, a dose every half
	// minute of half of the first; from memory.
	it('has seven movements of a minute, without the grimace', () => {
		expect(QUALITATIVE_EXERCISES.map(({ key }) => key)).toEqual([
			'normal',
			'deep',
			'side',
			'updown',
			'talk',
			'bend',
			'normal2'
		]);
		expect(QUALITATIVE_EXERCISES.every(({ seconds }) => seconds === QUALITATIVE_S)).toBe(true);
		expect([...SCREENING_SQUEEZES].map((n) => squeezesFor(n))).toEqual([
			{ first: 10, then: 5 },
			{ first: 20, then: 10 },
			{ first: 30, then: 15 }
		]);
		expect(DOSE_EVERY_S).toBe(30);
	});

	it.each([
		[-5, 0, 60, 1, false],
		[0, 0, 60, 1, false],
		[29.9, 0, 30.1, 1, false],
		[30, 0, 30, 2, false],
		[60, 1, 60, 3, false],
		[419.9, 6, 0.1, 14, false],
		[420, 7, 0, 14, true],
		[9999, 7, 0, 14, true]
	])('after %d s: movement %d, %d s left, dose %d', (s, index, leftS, doses, done) => {
		const now = qualitativeNow(s);
		expect([now.index, now.doses, now.done]).toEqual([index, doses, done]);
		expect(now.leftS).toBeCloseTo(leftS, 6);
		expect(now.exercise === null).toBe(done);
	});

	it('is not offered for a full-face mask under the UK pack, and smoke and banana not there at all', () => {
		expect(agentsFor('uk', 'full')).toEqual([]);
		expect(agentsFor('uk', 'half').map(({ key }) => key)).toEqual(['sweet', 'bitter']);
		expect(agentsFor('us', 'full')).toHaveLength(FIT_AGENTS.length);
	});

	it('of a taste asks for an empty mouth, of a counter for its adapter', () => {
		const keys = (key: string | null) =>
			beforeTest(key === null ? null : fitAgent(key)).map((one) => one.key);
		expect(keys('sweet')).toContain('fasting');
		expect(keys('banana')).not.toContain('fasting');
		expect(keys(null)).toContain('adapter');
		expect(keys('sweet')).not.toContain('adapter');
		for (const key of [null, 'sweet', 'banana', 'smoke'])
			expect(keys(key)).toEqual(expect.arrayContaining(['shaven', 'clean']));
		// By taste the mask goes on after the screening.
		expect(keys(null)).toEqual(expect.arrayContaining(['seal', 'worn', 'straps']));
		expect(keys('sweet')).not.toContain('worn');
	});
});
