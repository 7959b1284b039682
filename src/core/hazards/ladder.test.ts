import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SUBSTANCES, findSubstance } from '../data/substances.ts';
import type { RuleSet } from '../data/substance.ts';
import { saturationPpm } from '../filters/vapour-pressure.ts';
import { mgPerM3ToPpm, ppmToMgPerM3, type ConcentrationUnit } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';
import { OUTCOME_RANK, type HazardDecision } from './decision.ts';
import { DEFAULT_FACTS, publishedLimit, type ContaminantFact, type HazardFacts } from './facts.ts';
import { decideWithChanges } from './changes.ts';
import { decide } from './ladder.ts';

function contaminant(key: string, value: number | null, unit?: ConcentrationUnit): ContaminantFact {
	const substance = findSubstance(key);
	if (!substance) throw new Error(`no substance ${key}`);
	const usual = substance.limits.uk?.unit ?? substance.limits.us?.unit ?? 'ppm';
	return {
		substance: substance.key,
		name: substance.name,
		form: substance.form,
		concentration: value === null ? null : { value, unit: unit ?? usual }
	};
}
const facts = (contaminants: ContaminantFact[], part: Partial<HazardFacts> = {}): HazardFacts => ({
	...DEFAULT_FACTS,
	ruleSet: 'uk',
	contaminants,
	...part
});
const outcome = (contaminants: ContaminantFact[], part?: Partial<HazardFacts>) =>
	decide(facts(contaminants, part)).outcome;
const decidedAt = (decision: HazardDecision) =>
	decision.rungs.find((rung) => rung.answer === 'decides')?.key;
const kinds = (decision: HazardDecision) => decision.permitted.map((kind) => kind.kind);

describe('the decision ladder, rung by rung', () => {
	// Published: 29 CFR 1910.134(d)(1)(iii), unknown is treated as immediate danger; from memory.
	it('unknown: nothing entered, no concentration, no limit', () => {
		for (const list of [
			[],
			[contaminant('toluene', null)],
			[contaminant('diesel-exhaust', 3, 'mg/m3')]
		]) {
			const decision = decide(facts(list));
			expect(decision.outcome).toBe('self-contained');
			expect(decidedAt(decision)).toBe('known');
		}
	});

	// Published: 29 CFR 1910.134(b), 19.5 %; 1910.146(b), 23.5 %; from memory.
	it.each([
		[19.5, 'filter'],
		[19.49, 'self-contained'],
		[16, 'self-contained'],
		[23.5, 'filter'],
		[23.51, 'stop'],
		[null, 'self-contained']
	])('oxygen %s %% → %s', (oxygenPercent, expected) =>
		expect(outcome([contaminant('toluene', 100)], { oxygenPercent })).toBe(expected)
	);

	// Published: 29 CFR 1910.134 table II; from memory.
	it.each([
		[3000, 16.0, 'supplied air'],
		[3000, 15.9, 'self-contained'],
		[3500, 16.3, 'self-contained'],
		[3500, 16.4, 'supplied air'],
		[4500, 17.1, 'supplied air'],
		[5500, 17.7, 'self-contained'],
		[6500, 18.5, 'supplied air'],
		[7500, 19.3, 'supplied air'],
		[8001, 19.4, 'self-contained']
	])('US altitude exception at %i ft and %f %% → %s', (altitudeFt, oxygenPercent, expected) =>
		expect(
			outcome([contaminant('toluene', 100)], {
				ruleSet: 'us',
				oxygenStaysInRange: true,
				altitudeFt,
				oxygenPercent
			})
		).toBe(expected)
	);

	it('the altitude exception does not hide a later danger', () => {
		expect(
			outcome([contaminant('ammonia', 300)], {
				ruleSet: 'us',
				oxygenStaysInRange: true,
				oxygenPercent: 19
			})
		).toBe('self-contained');
	});

	// Published: NIOSH IDLH values (ammonia 300, chlorine 10, hydrogen sulphide 100, toluene 500 ppm); from memory.
	it.each([
		['ammonia', 300],
		['chlorine', 10],
		['hydrogen-sulphide', 100],
		['toluene', 500],
		['phosphine', 50]
	])('immediate danger: %s at %i ppm and not just below it', (key, idlh) => {
		const at = decide(facts([contaminant(key, idlh)]));
		expect(at.outcome).toBe('self-contained');
		expect(kinds(at)).toEqual(['airline-full-face-escape', 'ba']);
		const below = decide(facts([contaminant(key, idlh * 0.999)]));
		expect(decidedAt(below)).not.toBe('immediate-danger');
	});

	// Published: 29 CFR 1910.146(b), a tenth of the lower explosive limit; methane 5 %; from memory.
	it('a tenth of the explosive limit stops entry, and nothing is listed', () => {
		const decision = decide(facts([contaminant('methane', 5000)], { oxygenPercent: 20.8 }));
		expect(decision.outcome).toBe('stop');
		expect(decision.permitted).toEqual([]);
		expect(decision.reasons.map((r) => r.rule)).toContain('hazard.lel');
		expect(decide(facts([contaminant('methane', 4999)])).outcome).not.toBe('stop');
	});

	it('fire and rescue: breathing apparatus; leaving: an escape set, with its own air where it must', () => {
		expect(outcome([contaminant('toluene', 60)], { fire: true })).toBe('self-contained');
		expect(outcome([contaminant('toluene', 60)], { emergency: 'entry' })).toBe('self-contained');
		const easy = decide(facts([contaminant('toluene', 60)], { emergency: 'escape' }));
		const hard = decide(facts([contaminant('toluene', 600)], { emergency: 'escape' }));
		expect([easy.outcome, hard.outcome]).toEqual(['escape set', 'escape set']);
		expect(hard.rungs.find((r) => r.key === 'escape')?.text).toContain('own air');
		expect(easy.rungs.find((r) => r.key === 'escape')?.text).toContain('suited');
	});

	// Common practice: hydrogen fluoride burns through skin; ammonia at high level harms moist skin.
	it('skin: a gas-tight suit where the vapour itself harms', () => {
		expect(decide(facts([contaminant('hydrogen-fluoride', 30)]))).toMatchObject({
			outcome: 'self-contained',
			suit: 'gas-tight'
		});
		const fluorine = decide(facts([contaminant('fluorine', 6)]));
		expect(fluorine).toMatchObject({ outcome: 'supplied air', suit: 'gas-tight' });
		expect(kinds(fluorine)).toEqual(
			expect.arrayContaining(['airline-full-face', 'airline-full-face-escape', 'ba'])
		);
		expect(kinds(fluorine)).not.toContain('airline-half-mask');
		expect(decide(facts([contaminant('ammonia', 6000)]))).toMatchObject({
			outcome: 'self-contained',
			suit: 'gas-tight'
		});
	});

	// Published: 29 CFR 1910.1051 table 1 and 1910.1052(g); from memory.
	it('substance rules', () => {
		const us = { ruleSet: 'us' as const };
		expect(outcome([contaminant('1-3-butadiene', 40)], us)).toBe('filter');
		expect(outcome([contaminant('1-3-butadiene', 51)], us)).toBe('supplied air');
		expect(outcome([contaminant('dichloromethane', 40)], us)).toBe('supplied air');
	});

	// Common practice: the known traps of filters.
	it.each([
		['carbon-monoxide', 60],
		['nitrogen', 6000],
		['hdi', 0.05],
		['methanol', 300],
		['dichloromethane', 150],
		['ethylene-oxide', 3]
	])('no filter for %s', (key, value) => {
		const decision = decide(facts([contaminant(key, value)]));
		expect(decision.outcome).toBe('supplied air');
		expect(decidedAt(decision)).toBe('filter-exists');
		expect(decision.permitted.every((kind) => !kind.filters)).toBe(true);
	});

	// Published: EN 14387, AX not for a low boiler mixed with another organic vapour; from memory.
	it('a low boiler alone takes AX, in a mixture no filter', () => {
		const alone = decide(facts([contaminant('acetone', 400)]));
		expect(alone.permitted.find((k) => k.kind === 'half-mask')?.filters?.en).toBe('AX');
		expect(outcome([contaminant('acetone', 400), contaminant('styrene', 20)])).toBe('supplied air');
		expect(outcome([contaminant('acetone', 400), contaminant('grain-dust', 20)])).toBe('filter');
	});
});

describe('factor, kinds and filter codes', () => {
	const half = (list: ContaminantFact[], part?: Partial<HazardFacts>) =>
		decide(facts(list, part)).permitted.find((k) => k.kind === 'half-mask');

	// Published: EN 14387 and EN 143 types; 42 CFR 84 designations; from memory.
	it.each([
		['toluene', 200, 'A1', 'OV'],
		['ammonia', 120, 'K1', 'AM'],
		['chlorine', 3, 'B1', 'AG'],
		['sulphur-dioxide', 4, 'E1', 'AG'],
		['glass-fibre-dust', 40, 'P2', 'N95'],
		['glass-fibre-dust', 90, 'P3', 'N95'],
		['glass-fibre-dust', 19, 'P1', 'N95']
	])('%s at %f takes %s and %s', (key, value, en, us) =>
		expect(half([contaminant(key, value)])?.filters).toEqual({ en, us })
	);

	it('one code for all of them', () => {
		const list = [
			contaminant('toluene', 60),
			contaminant('ammonia', 30),
			contaminant('general-dust', 21)
		];
		expect(half(list)?.filters).toEqual({ en: 'A1K1-P2', us: 'OV/AM-N95' });
		expect(half([contaminant('oil-mist', 6, 'mg/m3')], { ruleSet: 'us' })?.filters?.us).toBe('P95');
	});

	// Published: EN 14387 class limits 1000, 5000, 10 000 ppm; 42 CFR 84.190 table 11, 1000 ppm; from memory.
	it('class and cartridge limits', () => {
		const uk = half([{ ...contaminant('ethanol', 1500) }]);
		expect(uk?.filters?.en).toBe('A2');
		expect(half([contaminant('ethanol', 1500)], { ruleSet: 'us' })).toBeUndefined();
		expect(half([contaminant('ethanol', 1000)], { ruleSet: 'us' })?.filters?.us).toBe('OV');
	});

	// Published: 29 CFR 1910.134(d)(3)(i)(B): MUC = APF × limit, capped by IDLH. Styrene UK 100 ppm, IDLH 700.
	it('caps the maximum use by immediate danger', () => {
		expect(half([contaminant('styrene', 180)])?.maxUseMultiple).toBe(7);
		expect(half([contaminant('ammonia', 120)])?.maxUseMultiple).toBe(10);
	});

	it('says at which concentration the answer changes, and it does', () => {
		const { changesIf } = decideWithChanges(facts([contaminant('styrene', 180)]));
		expect(changesIf[0]).toContain('Above 700 ppm');
		const sulphide = decideWithChanges(facts([contaminant('acetic-acid', 9)]));
		expect(sulphide.changesIf[0]).toContain('Above 10 ppm');
		expect(half([contaminant('ammonia', 250)])).toBeDefined();
		expect(half([contaminant('ammonia', 250.1)])).toBeUndefined();
	});

	// Published: 29 CFR 1910.134(f) and (g)(1); from memory.
	it('no fit test or hair at the seal leaves loose-fitting kinds', () => {
		for (const part of [{ fitTest: 'none' as const }, { facialHair: true }]) {
			const decision = decide(facts([contaminant('styrene', 180)], part));
			expect(decision.outcome).toBe('filter');
			expect(kinds(decision)).toEqual(['powered-hood', 'airline-hood']);
		}
	});

	it('ends in self-contained where no factor is enough, and says so', () => {
		const decision = decide(facts([contaminant('lead', 90)], { ruleSet: 'us' }));
		expect(decision.requiredFactor).toBe(10000);
		expect(decision.outcome).toBe('self-contained');
		const beyond = decide(
			facts([{ ...contaminant('chromium-vi', 14), limit: { value: 0.005, unit: 'mg/m3' } }])
		);
		expect(beyond).toMatchObject({ outcome: 'self-contained', requiredFactor: null });
		expect(beyond.conditions.join()).toContain('bring the concentration down');
	});

	it('five tasks, five answers', () => {
		const answers = [
			decide(facts([contaminant('hdi', 0.05), contaminant('n-butyl-acetate', 80)])),
			decide(facts([contaminant('ammonia', 400)])),
			decide(facts([contaminant('phosphine', 0.8)])),
			decide(facts([contaminant('hydrogen-sulphide', 2)], { oxygenPercent: 17.5 })),
			decide(facts([contaminant('glass-fibre-dust', 46)]))
		];
		expect(answers.map((a) => [a.outcome, decidedAt(a)])).toEqual([
			['supplied air', 'filter-exists'],
			['self-contained', 'immediate-danger'],
			['filter', 'factor'],
			['self-contained', 'oxygen'],
			['filter', 'factor']
		]);
	});
});

describe('properties of the ladder', () => {
	/** What is in the air leaves as much oxygen as it leaves. */
	const unsaid = { oxygenPercent: undefined };
	const measurable = SUBSTANCES.filter((s) => publishedLimit(s, 'uk') && publishedLimit(s, 'us'));
	const substance = fc.constantFrom(...measurable.map((s) => s.key));
	const ruleSets = fc.constantFrom<RuleSet>('us', 'uk');
	const multiple = fc.double({ min: 0.001, max: 30, noNaN: true });
	/** A concentration of so many limits, never above what the air can hold. */
	const at = (key: string, times: number, ruleSet: RuleSet): ContaminantFact => {
		const s = findSubstance(key);
		const limit = publishedLimit(s, ruleSet);
		if (!s || !limit) throw new Error(key);
		const cap = limit.unit === 'ppm' ? (saturationPpm(s, 20) ?? 1e6) * 0.99 : 1e6;
		return contaminant(key, Math.min(limit.value * times, cap), limit.unit);
	};
	const strength = (d: HazardDecision) => [OUTCOME_RANK[d.outcome], d.requiredFactor ?? Infinity];
	const noWeaker = (after: HazardDecision, before: HazardDecision) => {
		const [a, b] = [strength(after), strength(before)];
		expect(a[0]).toBeGreaterThanOrEqual(b[0] ?? 0);
		expect(a[1]).toBeGreaterThanOrEqual(b[1] ?? 0);
	};

	it('more concentration never gives a less protective answer', () => {
		fc.assert(
			fc.property(substance, multiple, multiple, ruleSets, (key, a, b, ruleSet) => {
				const run = (times: number) =>
					decide(facts([at(key, times, ruleSet)], { ruleSet, ...unsaid }));
				noWeaker(run(Math.max(a, b)), run(Math.min(a, b)));
			}),
			{ numRuns: 400 }
		);
	});

	it('adding a contaminant never gives a less protective answer', () => {
		fc.assert(
			fc.property(substance, substance, multiple, multiple, ruleSets, (k1, k2, a, b, ruleSet) => {
				const one = decide(facts([at(k1, a, ruleSet)], { ruleSet, ...unsaid }));
				const two = decide(facts([at(k1, a, ruleSet), at(k2, b, ruleSet)], { ruleSet, ...unsaid }));
				noWeaker(two, one);
				// A trace that asks for nothing lists nothing.
				if (one.outcome === 'filter' && !one.permitted.length) return;
				for (const kind of two.permitted) expect(kinds(one)).toContain(kind.kind);
			}),
			{ numRuns: 400 }
		);
	});

	it('too little oxygen or an unknown never ends in a filter', () => {
		fc.assert(
			fc.property(
				substance,
				multiple,
				ruleSets,
				fc.boolean(),
				fc.option(fc.double({ min: 0, max: 19.499, noNaN: true })),
				(key, times, ruleSet, oxygenStaysInRange, oxygenPercent) => {
					const air = at(key, times, ruleSet);
					// So much of a gas leaves no more oxygen than this.
					const left =
						20.9 * (1 - (air.concentration?.unit === 'ppm' ? air.concentration.value : 0) / 1e6);
					const low = decide(
						facts([air], {
							ruleSet,
							oxygenStaysInRange,
							oxygenPercent: oxygenPercent === null ? null : Math.min(oxygenPercent, left)
						})
					);
					expect(low.outcome).not.toBe('filter');
					expect(low.permitted.some((kind) => kind.source === 'filter')).toBe(false);
					const unknown = decide(
						facts([at(key, times, ruleSet), contaminant('toluene', null)], { ruleSet, ...unsaid })
					);
					expect(['self-contained', 'stop']).toContain(unknown.outcome);
				}
			),
			{ numRuns: 300 }
		);
	});

	it('the unit of entry never changes the answer', () => {
		const gases = measurable.filter(
			(s) => s.molarMassGPerMol && publishedLimit(s, 'uk')?.unit === 'ppm'
		);
		fc.assert(
			fc.property(fc.constantFrom(...gases.map((s) => s.key)), multiple, (key, times) => {
				const fact = at(key, times, 'uk');
				const mass = findSubstance(key)?.molarMassGPerMol ?? NaN;
				const ppm = fact.concentration?.value ?? NaN;
				const mg = ppmToMgPerM3(ppm, mass, { temperatureC: 20 });
				// Back through the conversion, so that both runs see the same rounding at a boundary.
				const same = mgPerM3ToPpm(mg, mass, { temperatureC: 20 });
				const a = decide(facts([{ ...fact, concentration: { value: same, unit: 'ppm' } }], unsaid));
				const b = decide(facts([{ ...fact, concentration: { value: mg, unit: 'mg/m3' } }], unsaid));
				expect([b.outcome, b.requiredFactor, kinds(b)]).toEqual([
					a.outcome,
					a.requiredFactor,
					kinds(a)
				]);
			}),
			{ numRuns: 300 }
		);
	});
});

describe('what the ladder refuses', () => {
	const path = (run: () => unknown) => {
		try {
			run();
		} catch (error) {
			if (error instanceof InputError) return `${error.path}: ${error.message}`;
			throw error;
		}
		return 'accepted';
	};
	it.each([
		[
			() => outcome([contaminant('toluene', -1)]),
			/^contaminants\[0\]\.concentration: .*below zero/
		],
		[
			() => outcome([contaminant('grain-dust', 9, 'ppm')]),
			/^contaminants\[0\]\.concentration\.unit/
		],
		[() => outcome([contaminant('toluene', 10)], { oxygenPercent: 209 }), /mean 20\.9 %/],
		[() => outcome([contaminant('toluene', 10)], { oxygenPercent: -1 }), /^oxygenPercent/],
		[() => outcome([contaminant('toluene', 2e6)]), /more than all of the air/],
		[
			() => outcome([{ ...contaminant('toluene', 1), limit: { value: 0, unit: 'ppm' } }]),
			/limit must be above zero/
		],
		[() => outcome([{ ...contaminant('toluene', 1), substance: 'soup' }]), /No substance "soup"/],
		[
			() => outcome([{ ...contaminant('cyclohexanone', 400) }, contaminant('n-decane', 1)]),
			/accepted/
		]
	])('%#', (run, message) => expect(path(run)).toMatch(message));
});
