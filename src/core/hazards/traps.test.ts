import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { airFacts, inAir, limitsOf } from '../../../tests/support/in-air.ts';
import { SUBSTANCES } from '../data/substances.ts';
import { decide } from './ladder.ts';
import { publishedLimit } from './facts.ts';

// Published values from memory: 29 CFR 1910.134 and 1910.146, 42 CFR 84, NIOSH Pocket Guide; else common practice.
const facts = airFacts;
const rules = (d: ReturnType<typeof decide>) => d.reasons.map(({ rule }) => rule);
const BOTH = ['us', 'uk'] as const;

describe('oxygen that was not measured', () => {
	it.each(BOTH)('%s: argon 500,000 ppm: own air, never a demand half mask', (ruleSet) => {
		const d = decide(facts(ruleSet, [inAir('argon', 500_000)]));
		expect(d.outcome).toBe('self-contained');
		expect(rules(d)).toContain('hazard.oxygen-unknown');
		expect(d.permitted.map(({ kind }) => kind)).toEqual(['airline-full-face-escape', 'ba']);
	});

	it('and contradicts what is in the air: argon 500,000 ppm beside 20.9 %', () =>
		expect(() => decide(facts('us', [inAir('argon', 500_000)], { oxygenPercent: 20.9 }))).toThrow(
			/leaves 10\.5 % of oxygen.*Measure both again/
		));

	it('is said to be assumed where nothing speaks against it', () => {
		const d = decide(facts('uk', [inAir('toluene', 100)]));
		expect([d.outcome, rules(d).includes('hazard.oxygen-assumed')]).toEqual(['filter', true]);
	});

	it('is unknown in a confined space, which asks for an attendant, an escape set and a meter', () => {
		const d = decide(facts('uk', [inAir('toluene', 100)], { confinedSpace: true }));
		expect(d.outcome).toBe('self-contained');
		expect(d.conditions.join(' ')).toMatch(/attendant.*escape set.*flammable gas is measured/s);
		const measured = { confinedSpace: true, oxygenPercent: 20.9, lelReadingPercent: 0 };
		expect(decide(facts('uk', [inAir('toluene', 100)], measured)).outcome).toBe('filter');
	});

	it.each([
		['argon', 1000],
		['hydrogen', 1000],
		['helium', 4000]
	])('a trace of %s, %i ppm, asks for nothing', (key, ppm) => {
		const d = decide(facts('us', [inAir(key, ppm)]));
		expect([d.outcome, d.permitted]).toEqual(['filter', []]);
		expect(d.conditions.join(' ')).toMatch(/Nothing to protect from as entered/);
	});
});

describe('sums', () => {
	it('of lower explosive limits: from 10 % on nobody goes in, and nothing is listed', () => {
		const air = [inAir('toluene', 600), inAir('acetone', 1300)];
		const d = decide(
			facts(
				'us',
				air.map((c) => ({ ...c, limit: { value: 5000, unit: 'ppm' } }))
			)
		);
		expect([d.outcome, d.permitted, rules(d).includes('hazard.lel')]).toEqual(['stop', [], true]);
	});

	it('rescue below 25 % with own air and ignition under control first, from 25 % nobody', () => {
		const entry = (lelReadingPercent: number) =>
			decide(facts('us', [inAir('toluene', 50)], { emergency: 'entry', lelReadingPercent }));
		expect(entry(24).outcome).toBe('self-contained');
		expect(entry(24).reasons[0]?.text ?? '').toBeTruthy();
		expect(
			entry(24)
				.reasons.map(({ text }) => text)
				.join()
		).toMatch(/control ignition first/);
		expect([entry(25).outcome, entry(25).permitted]).toEqual(['stop', []]);
		const leaving = facts('us', [inAir('toluene', 50)], {
			emergency: 'escape',
			lelReadingPercent: 40
		});
		expect(decide(leaving).outcome).toBe('escape set');
	});

	it('of immediate danger: two at 0.6 of theirs are at 1.2 together', () => {
		const d = decide(facts('us', [inAir('ammonia', 180), inAir('chlorine', 6)]));
		expect([d.outcome, rules(d).includes('hazard.idlh-sum')]).toEqual(['self-contained', true]);
	});

	it('two rows of one substance are one', () => {
		const twice = decide(facts('us', [inAir('ammonia', 150), inAir('ammonia', 150)]));
		expect(twice.outcome).toBe(decide(facts('us', [inAir('ammonia', 300)])).outcome);
	});

	it('of what one type has to hold: two vapours of 600 ppm are above the 1000 of organic vapour cartridges', () => {
		const high = { value: 2000, unit: 'ppm' as const };
		const air = [inAir('n-butyl-acetate', 600), inAir('isobutyl-acetate', 600)];
		const d = decide(
			facts(
				'us',
				air.map((c) => ({ ...c, limit: high })),
				{ lelReadingPercent: 5 }
			)
		);
		expect(d.permitted.filter(({ source }) => source === 'filter')).toEqual([]);
	});
});

describe('a scheme without a filter has no filter', () => {
	it.each([
		['nitrogen-dioxide', 6],
		['nitric-oxide', 40],
		['phosphine', 0.5],
		['bromine', 0.15],
		['nitric-acid', 4],
		['phosphorus-trichloride', 0.8],
		['ethanolamine', 5],
		['ethylenediamine', 15]
	])('US: %s at %f ppm ends in supplied air', (key, ppm) =>
		expect(decide(facts('us', [inAir(key, ppm)])).outcome).toBe('supplied air')
	);

	it('every permitted filter has a code in the scheme in force, in mixtures and both packs', () => {
		const known = SUBSTANCES.filter((s) => publishedLimit(s, 'uk') && publishedLimit(s, 'us'));
		const key = fc.constantFrom(...known.map((s) => s.key));
		const times = fc.constantFrom(0.5, 2, 8, 30, 90);
		const at = limitsOf;
		fc.assert(
			fc.property(key, key, times, times, fc.constantFrom(...BOTH), (a, b, x, y, ruleSet) => {
				const d = decide(facts(ruleSet, [at(a, x, ruleSet), at(b, y, ruleSet)]));
				for (const kind of d.permitted.filter(({ source }) => source === 'filter'))
					expect(kind.filters?.[ruleSet === 'us' ? 'us' : 'en']).toBeTruthy();
				if (d.outcome === 'stop') expect(d.permitted).toEqual([]);
			}),
			{ numRuns: 500 }
		);
	});
});

describe('a face that nothing seals on', () => {
	it.each([
		['no fit test', { fitTest: 'none' as const }, /a passed fit test/],
		['hair at the seal', { facialHair: true }, /a clean shave/]
	])(
		'%s, and a factor above every loose-fitting kind: stop, with what would allow it',
		(_, part, says) => {
			const air = [{ ...inAir('styrene', 700), limit: { value: 10, unit: 'ppm' as const } }];
			const d = decide(facts('us', air, part));
			expect([d.outcome, d.permitted]).toEqual(['stop', []]);
			expect(d.reasons.find(({ rule }) => rule === 'hazard.fit-stop')?.text).toMatch(says);
		}
	);

	it.each(BOTH)('%s: never a tight-fitting kind for whoever has hair at the seal', (ruleSet) => {
		for (const ppm of [40, 150, 400, 700]) {
			const d = decide(facts(ruleSet, [inAir('styrene', ppm)], { facialHair: true }));
			expect(d.permitted.filter(({ tightFitting }) => tightFitting)).toEqual([]);
		}
	});
});
