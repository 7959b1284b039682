import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calculate } from '../calc/registry.ts';
import {
	exerciseFactor,
	FIT_PASS,
	judgeAmbient,
	judgeFit,
	MOST_FACTOR,
	overallFactor,
	shownFactor
} from './fit-factor.ts';
import {
	FIT_PROTOCOLS,
	fitProtocol,
	judgeProtocol,
	protocolSeconds,
	standingOf
} from './protocols.ts';

const factor = fc.double({ min: 1, max: 20_000, noNaN: true });

describe('the overall factor', () => {
	// Common practice: the worked example of the trade, from memory.
	it('of 210, 180, 95, 160, 240, 130 and 170 is 156.1', () =>
		expect(overallFactor([210, 180, 95, 160, 240, 130, 170])).toBeCloseTo(156.1, 1));

	it('never lies above the largest nor below the smallest, nor above the mean', () => {
		fc.assert(
			fc.property(fc.array(factor, { minLength: 1, maxLength: 12 }), (factors) => {
				const overall = overallFactor(factors);
				const mean = factors.reduce((a, b) => a + b, 0) / factors.length;
				const near = 1 + 1e-9;
				expect(overall).toBeLessThanOrEqual(Math.max(...factors) * near);
				expect(overall * near).toBeGreaterThanOrEqual(Math.min(...factors));
				expect(overall).toBeLessThanOrEqual(mean * near);
			})
		);
	});

	it('is pulled down by one bad exercise to no more than so many times it', () => {
		fc.assert(
			fc.property(fc.array(factor, { minLength: 1, maxLength: 12 }), factor, (factors, bad) => {
				const all = [...factors, bad];
				expect(overallFactor(all)).toBeLessThanOrEqual(all.length * bad * (1 + 1e-9));
				const worse = overallFactor([...factors, bad / 2]);
				expect(worse).toBeLessThan(overallFactor(all));
			})
		);
	});

	it.each([
		[[], 'factors'],
		[[100, 0], 'factors[1]'],
		[[NaN], 'factors[0]'],
		[[-5], 'factors[0]']
	])('of %j is refused at %s', (factors, path) =>
		expect(() => overallFactor(factors)).toThrow(expect.objectContaining({ path }))
	);
});

describe('a factor as it is shown', () => {
	it('is whole, and 2600 of seven times 2600', () => {
		expect(shownFactor(overallFactor(Array.from({ length: 7 }, () => 2600)))).toBe(2600);
		expect([99.9, 100, 156.14].map(shownFactor)).toEqual([99, 100, 156]);
	});
});

describe('a fit test', () => {
	// Published: 29 CFR 1910.134 app. A, half 100, full-face 500; HSE INDG479, half 100, full-face 2000; from memory.
	it.each([
		['us', 'half', 100, 'pass'],
		['us', 'half', 99.9, 'fail'],
		['us', 'full', 500, 'pass'],
		['us', 'full', 499.99, 'fail'],
		['uk', 'half', 100, 'pass'],
		['uk', 'half', 99.9, 'fail'],
		['uk', 'full', 2000, 'pass'],
		['uk', 'full', 1999, 'fail']
	] as const)(
		'under %s on a %s mask with %d at every exercise: %s',
		(ruleSet, mask, value, outcome) => {
			for (const n of [1, 3, 7, 11])
				expect(
					judgeFit(
						Array.from({ length: n }, () => value),
						mask,
						ruleSet
					).outcome
				).toBe(outcome);
		}
	);

	it('under the UK pack each exercise counts, under the US one the overall alone', () => {
		const factors = [500, 500, 500, 500, 500, 500, 99];
		expect(overallFactor(factors)).toBeGreaterThan(100);
		expect(judgeFit(factors, 'half', 'us').outcome).toBe('pass');
		const uk = judgeFit(factors, 'half', 'uk');
		expect(uk.outcome).toBe('fail');
		expect(uk.reasons[1]).toMatchObject({
			rule: 'fit.exercise',
			value: 99,
			limit: 100,
			margin: -1
		});
	});

	it('that passes under the UK pack passes under the US one, with the limits of the mask alike', () => {
		fc.assert(
			fc.property(fc.array(factor, { minLength: 1, maxLength: 9 }), (factors) => {
				for (const mask of ['half', 'full'] as const)
					if (judgeFit(factors, mask, 'uk').outcome === 'pass')
						expect(judgeFit(factors, mask, 'us').outcome).toBe('pass');
			})
		);
	});

	it('a better exercise never makes it fail', () => {
		fc.assert(
			fc.property(
				fc.array(factor, { minLength: 1, maxLength: 9 }),
				fc.nat(8),
				fc.constantFrom('us', 'uk'),
				(factors, at, ruleSet) => {
					const better = factors.map((f, i) => (i === at % factors.length ? f * 1.5 : f));
					if (judgeFit(factors, 'half', ruleSet).outcome === 'pass')
						expect(judgeFit(better, 'half', ruleSet).outcome).toBe('pass');
				}
			)
		);
	});
});

describe('what a counter measured', () => {
	it('is the mean of the room before and after over the mask', () =>
		expect(exerciseFactor({ ambientBefore: 3000, ambientAfter: 5000, inMask: 20 })).toEqual({
			factor: 200,
			capped: false
		}));
	it('is believed up to where the counter can tell', () => {
		expect(exerciseFactor({ ambientBefore: 8000, ambientAfter: 8000, inMask: 0 })).toEqual({
			factor: MOST_FACTOR,
			capped: true
		});
		expect(
			exerciseFactor({ ambientBefore: 8000, ambientAfter: 8000, inMask: 1 }, 5000).capped
		).toBe(true);
	});
	it.each([
		[{ ambientBefore: 0, ambientAfter: 1, inMask: 1 }, 'ambientBefore'],
		[{ ambientBefore: 1, ambientAfter: NaN, inMask: 1 }, 'ambientAfter'],
		[{ ambientBefore: 1, ambientAfter: 1, inMask: -1 }, 'inMask']
	])('%j is refused at %s', (counts, path) =>
		expect(() => exerciseFactor(counts)).toThrow(expect.objectContaining({ path }))
	);
	it.each([
		[1000, 'enough'],
		[999, 'too few'],
		[0, 'too few']
	])('a room with %i is %s', (perCm3, outcome) =>
		expect(judgeAmbient(perCm3).outcome).toBe(outcome)
	);
});

describe('the protocols', () => {
	// Published, from memory: app. A part I A 14 (8 exercises, 60 s, grimace 15 s and not counted), tables
	// (50, 30, 30, 39 s), INDG479 (seven of 60 s).
	it.each([
		['us-full', 435, 8, 7],
		['us-fast', 149, 4, 4],
		['us-fast-filtering', 149, 4, 4],
		['uk-seven', 420, 7, 7]
	])('%s takes %i s, has %i exercises, of which %i count', (key, seconds, all, counted) => {
		const protocol = fitProtocol(key);
		expect(protocolSeconds(protocol)).toBe(seconds);
		expect(protocol.exercises).toHaveLength(all);
		expect(protocol.exercises.filter((one) => one.counted)).toHaveLength(counted);
		expect(new Set(protocol.exercises.map((one) => one.key)).size).toBe(all);
		for (const { says, name } of protocol.exercises) {
			expect(says.length).toBeGreaterThan(5);
			expect(name).not.toMatch(/\d/);
		}
	});
	it('the one that does not count is the grimace, and no other', () => {
		const uncounted = FIT_PROTOCOLS.flatMap(({ key, exercises }) =>
			exercises.filter(({ counted }) => !counted).map((one) => `${key} ${one.name}`)
		);
		expect(uncounted).toEqual(['us-full Grimace']);
	});

	const all = (key: string, value: number) =>
		Object.fromEntries(fitProtocol(key).exercises.map((one) => [one.key, value]));
	it('a test that lacks one exercise that counts is not judged, and says which', () => {
		const { updown: _, ...six } = all('uk-seven', 3000);
		expect(() => judgeProtocol(fitProtocol('uk-seven'), six, 'full')).toThrow(
			/Not measured: head up and down/
		);
		const { grimace: __, ...seven } = all('us-full', 600);
		expect(judgeProtocol(fitProtocol('us-full'), seven, 'full').outcome).toBe('pass');
	});
	it('what does not count changes nothing; the movement that leaked is named', () => {
		const factors = { ...all('us-full', 600), grimace: 3, talk: 510 };
		const verdict = judgeProtocol(fitProtocol('us-full'), factors, 'full');
		expect(verdict.outcome).toBe('pass');
		expect(verdict.worst).toEqual({ key: 'talk', factor: 510 });
	});
	it('is for its kinds of mask, and knows its own exercises', () => {
		const fast = fitProtocol('us-fast-filtering');
		expect(() => judgeProtocol(fast, all('us-fast-filtering', 200), 'full')).toThrow(/not for/);
		expect(() => standingOf(fast, { jog: 100 })).toThrow(/no exercise “jog”/);
		expect(standingOf(fast, { bend: 100 })).toEqual({
			left: ['talk', 'side', 'updown'],
			overall: 100,
			worst: { key: 'bend', factor: 100 }
		});
	});
});

describe('the operation fit-factor', () => {
	it('answers as the calculation interface words it', () => {
		const { ok, value } = calculate('fit-factor', {
			factors: [210, 180, 95, 160, 240, 130, 170],
			mask: 'half',
			ruleSet: 'uk'
		});
		expect(ok).toBe(true);
		expect(value).toMatchObject({ outcome: 'fail', overall: expect.closeTo(156.1, 1) });
		expect(calculate('fit-factor', { factors: [], mask: 'half', ruleSet: 'us' })).toMatchObject({
			ok: false,
			value: { error: { issues: [{ path: 'factors' }] } }
		});
		expect(FIT_PASS.us.full).toBe(500);
	});
});
