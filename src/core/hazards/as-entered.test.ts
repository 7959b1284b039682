import { describe, expect, it } from 'vitest';
import { airFacts, inAir } from '../../../tests/support/in-air.ts';
import { decide } from './ladder.ts';

const BOTH = ['us', 'uk'] as const;
const ppm = (value: number) => ({ value, unit: 'ppm' as const });

// Limits published: HSE EH40, toluene 50 ppm; OSHA 200 ppm; from memory.
describe('an entered limit', () => {
	it('laxer than the published one does not decide, and is shown', () => {
		const d = decide(airFacts('uk', [inAir('toluene', 100, { limit: ppm(200) })]));
		expect([d.hazardRatio, d.contaminants[0]?.limit]).toEqual([2, ppm(50)]);
		expect(d.conditions.join()).toMatch(
			/200 ppm is laxer than the published 50 ppm; the published/
		);
	});

	it('laxer, kept for a reason, decides and is shown with it', () => {
		const limitReason = 'blood values of the last year';
		const d = decide(airFacts('uk', [inAir('toluene', 100, { limit: ppm(200), limitReason })]));
		expect(d.hazardRatio).toBe(0.5);
		expect(d.conditions.join()).toMatch(/is kept: blood values of the last year/);
	});

	it('stricter decides, and one typed in the other unit as the list has it is not laxer', () => {
		expect(decide(airFacts('uk', [inAir('toluene', 100, { limit: ppm(20) })])).hazardRatio).toBe(5);
		const listed = { value: 191, unit: 'mg/m3' as const };
		const d = decide(airFacts('uk', [inAir('toluene', 100, { limit: listed })]));
		expect(d.contaminants[0]?.laxer).toBeUndefined();
	});

	it('stands in for a list that has none', () =>
		expect(
			decide(
				airFacts('uk', [
					inAir('oil-mist', 6, { unit: 'mg/m3', limit: { value: 3, unit: 'mg/m3' } })
				])
			).hazardRatio
		).toBe(2));

	it('is the recommended US one where the law has none, and says so', () => {
		const d = decide(airFacts('us', [inAir('n-nonane', 400)]));
		expect(d.hazardRatio).toBe(2);
		expect(d.contaminants[0]?.limitSource).toMatch(/recommended US limit/);
	});
});

describe('zero', () => {
	it.each(BOTH)('%s: nothing to protect from as entered, and that it was measured', (ruleSet) => {
		const d = decide(airFacts(ruleSet, [inAir('hydrogen-cyanide', 0), inAir('toluene', 0)]));
		expect([d.outcome, d.hazardRatio, d.permitted]).toEqual(['filter', 0, []]);
		expect(d.conditions.join()).toMatch(/Nothing to protect from as entered.*It was measured/);
	});

	it('beside something else changes nothing but the reminder', () => {
		const alone = decide(airFacts('uk', [inAir('toluene', 200)]));
		const both = decide(airFacts('uk', [inAir('toluene', 200), inAir('carbon-monoxide', 0)]));
		expect(both.permitted).toEqual(alone.permitted);
		expect(both.conditions.join()).toMatch(/Carbon monoxide: nothing is there as entered/);
	});

	it('does not lift a danger around it', () =>
		expect(decide(airFacts('uk', [inAir('toluene', 0)], { oxygenPercent: 16 })).outcome).toBe(
			'self-contained'
		));
});

it.each([
	['ammonia', 300],
	['chlorine', 10]
])('%s exactly at %i ppm is at the level, and the sentence says so', (key, value) => {
	const d = decide(airFacts('us', [inAir(key, value)]));
	expect(d.outcome).toBe('self-contained');
	expect(d.reasons.find(({ rule }) => rule === 'hazard.idlh')?.text).toMatch(/ is at the level /);
});

describe('altitude', () => {
	// Published: 29 CFR 1910.134 table II and its note on enriched air; from memory.
	it('alone never takes the exception, and above 14,000 ft breathing air is enriched', () => {
		const air = [inAir('toluene', 300)];
		const at = (altitudeFt: number, oxygenStaysInRange: boolean) =>
			decide(airFacts('us', air, { altitudeFt, oxygenPercent: 18, oxygenStaysInRange }));
		expect(at(2000, false).outcome).toBe('self-contained');
		expect(at(2000, true).outcome).toBe('supplied air');
		expect(at(8001, true).outcome).toBe('self-contained');
		expect(at(14_001, false).conditions.join()).toMatch(/enriched with oxygen/);
		expect(at(14_000, false).conditions.join()).not.toMatch(/enriched/);
	});
});

// Published: OSHA limits and 42 CFR 84 cartridge limits; from memory.
describe('an answer that moves up says why', () => {
	it.each([
		['acetone', 1500],
		['ethanol', 2500],
		['2-butanone', 1300]
	])('US: %s at %i ppm', (key, value) => {
		const d = decide(airFacts('us', [inAir(key, value)]));
		expect(d.outcome).toBe('supplied air');
		const why = d.reasons.find(({ rule }) => rule === 'hazard.none-left')?.text;
		expect(why).toMatch(/No filtering kind is left: .*lies above the \d+ ppm/);
	});
});

describe('over-protection is an error too', () => {
	// Limits published: HSE EH40 20 and 0.9 ppm; OSHA 50 and 10 ppm; from memory.
	it.each([
		['uk', 'carbon-monoxide', 10],
		['us', 'carbon-monoxide', 25],
		['uk', 'hydrogen-cyanide', 0.5],
		['us', 'hydrogen-cyanide', 3]
	] as const)('%s: %s at %f ppm, below its limit, asks for nothing', (ruleSet, key, value) => {
		const d = decide(airFacts(ruleSet, [inAir(key, value)]));
		expect([d.outcome, d.permitted, d.suit === 'gas-tight']).toEqual(['filter', [], false]);
		expect(d.conditions.join()).toMatch(/the limit itself calls for no protection/);
	});

	it('what passes the filter may while it stays below the limit, and the rest is held to more', () => {
		const at = (co: number) =>
			decide(airFacts('uk', [inAir('carbon-monoxide', co), inAir('n-butyl-acetate', 900)]));
		// 6 times the limit; with 0.25 of it passing the filter has to bring 6 down to 0.75: a factor of 8.
		expect(at(5).outcome).toBe('filter');
		expect(at(5).permitted.map(({ kind }) => kind)).toContain('half-mask');
		// With half of it passing 6 has to come down to 0.5: a factor of 12, above a half mask.
		expect(at(10).permitted.map(({ kind }) => kind)).not.toContain('half-mask');
		expect(at(10).permitted.map(({ kind }) => kind)).toContain('full-face');
		expect(at(21).outcome).toBe('supplied air');
	});
});
