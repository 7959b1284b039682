import { describe, expect, it } from 'vitest';
import { calculate } from './registry.ts';

const ask = (name: string, input: object) => calculate(name, input);

describe('survival', () => {
	// Published: Freireich et al., Blood 21 (1963) 699, weeks of remission under 6-mercaptopurine.
	const lives = '6 6 6 6+ 7 9+ 10 10+ 11+ 13 16 17+ 19+ 20+ 22 23 25+ 32+ 32+ 34+ 35+'
		.split(' ')
		.map((word) => ({ duration: Number.parseFloat(word), failed: !word.endsWith('+') }));

	it('gives curve, band, median and law', () => {
		const { value } = ask('survival', { lives }) as { value: Record<string, unknown> };
		expect(value).toMatchObject({ median: 23 });
		expect(
			(value.curve as { survival: number }[]).map((s) => Number(s.survival.toFixed(3)))
		).toEqual([0.857, 0.807, 0.753, 0.69, 0.627, 0.538, 0.448]);
		expect((value.weibull as { shape: number }).shape).toBeGreaterThan(1);
	});

	it('leaves out what nothing is known of', () => {
		expect(ask('survival', { lives: [{ duration: 4, failed: false }] })).toMatchObject({
			value: { curve: [] }
		});
		expect(ask('survival', { lives: [] })).toMatchObject({
			value: { error: { issues: [{ path: 'lives' }] } }
		});
		expect(ask('survival', { lives: [{ duration: -1, failed: true }] })).toMatchObject({
			value: { error: { issues: [{ path: 'lives[0].duration' }] } }
		});
	});
});

describe('compare-rates', () => {
	it('says which differ, and that small numbers are small', () => {
		// Published: Fisher 1935: a lady tasting tea, 3 of 4 against 1 of 4; from memory.
		const { value } = ask('compare-rates', {
			groups: [
				{ name: 'milk first', failures: 3, trials: 4 },
				{ name: 'tea first', failures: 1, trials: 4 }
			]
		}) as { value: { pValue: number; reasons: { rule: string }[] } };
		expect(value.pValue).toBeCloseTo(34 / 70, 10);
		expect(value.reasons.map(({ rule }) => rule)).toContain('small-numbers');
	});

	it('says where an input is wrong', () => {
		const wrong = (group: object) => ask('compare-rates', { groups: [group] });
		expect(wrong({ name: 'a', failures: 3, trials: 2 })).toMatchObject({
			value: { error: { issues: [{ path: 'groups[0].failures' }] } }
		});
		expect(wrong({ name: 'a', failures: 0, trials: 0 })).toMatchObject({
			value: { error: { issues: [{ path: 'groups[0].trials' }] } }
		});
		expect(ask('compare-rates', { groups: [] })).toMatchObject({
			value: { error: { issues: [{ path: 'groups' }] } }
		});
	});
});
