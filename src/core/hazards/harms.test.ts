import { describe, expect, it } from 'vitest';
import { airFacts, inAir } from '../../../tests/support/in-air.ts';
import { SUBSTANCES } from '../data/substances.ts';
import type { HazardDecision } from './decision.ts';
import type { ContaminantFact } from './facts.ts';
import { decide } from './ladder.ts';

const mg = (key: string, value: number, part: Partial<ContaminantFact> = {}) =>
	inAir(key, value, { unit: 'mg/m3', ...part });
const kinds = (d: HazardDecision) => d.permitted.map(({ kind }) => kind);
const filterOf = (d: HazardDecision, kind: string) =>
	d.permitted.find((one) => one.kind === kind)?.filters;
const BOTH = ['us', 'uk'] as const;

// Published: HSE guidance on asthmagens, carcinogens and welding fume, at least 20 (FFP3 or P3); from memory.
describe('the least factor by kind of harm', () => {
	it.each([
		['a sensitiser', mg('flour-dust', 12)],
		['a sensitiser', mg('softwood-dust', 6)],
		['a carcinogen', mg('hardwood-dust', 5)],
		['a carcinogen', mg('silica', 0.15)],
		['a carcinogen', inAir('benzene', 2)]
	])('UK: %s takes at least 20 (%o)', (_, air) => {
		const d = decide(airFacts('uk', [air]));
		expect(d.requiredFactor).toBe(20);
		expect(d.hazardRatio).toBeLessThan(4);
		expect(Math.min(...d.permitted.map(({ factor }) => factor))).toBeGreaterThanOrEqual(20);
		expect(d.reasons.map(({ rule }) => rule)).toContain('hazard.least-factor');
	});

	it('UK: welding fume without a limit of its own is answered with P3, not with own air', () => {
		for (const s of SUBSTANCES.filter(({ harms }) => harms?.includes('weld fume'))) {
			const d = decide(airFacts('uk', [mg(s.key, 4)]));
			expect([s.key, d.outcome, d.requiredFactor, d.hazardRatio]).toEqual([
				s.key,
				'filter',
				20,
				null
			]);
			expect(filterOf(d, 'half-mask')?.en).toBe('P3');
			expect(filterOf(d, 'filtering-facepiece')?.en).toBe('FFP3');
		}
	});

	it('US: the ratio alone, and no answer without a limit', () => {
		expect(decide(airFacts('us', [mg('flour-dust', 30)])).requiredFactor).toBe(10);
		expect(decide(airFacts('us', [mg('welding-fume', 4)])).outcome).toBe('self-contained');
	});

	it('is no lower beside others, and the ratio still counts above it', () => {
		const d = decide(airFacts('uk', [mg('flour-dust', 300), mg('general-dust', 20)]));
		expect(d.requiredFactor).toBe(40);
	});
});

// Published: HSE and CDC guidance on biological agents by group, from memory; no exposure limit exists.
describe('biological agents', () => {
	it.each([
		['uk', 'legionella', 'ordinary', 10],
		['uk', 'legionella', 'aerosol', 20],
		['uk', 'biological-3', 'ordinary', 20],
		['uk', 'biological-4', 'ordinary', 40],
		['us', 'biological-3', 'ordinary', 10],
		['us', 'biological-3', 'aerosol', 25],
		['us', 'biological-4', 'ordinary', 1000]
	] as const)('%s: %s, %s work: a factor of %i, and no ratio', (ruleSet, key, task, factor) => {
		const d = decide(airFacts(ruleSet, [inAir(key, null, { biologicalTask: task })]));
		expect([d.requiredFactor, d.hazardRatio, d.mixture]).toEqual([factor, null, null]);
		expect(d.outcome).toBe('filter');
		expect(d.permitted.every((kind) => kind.factor >= factor && kind.margin === null)).toBe(true);
		expect(d.conditions.join(' ')).toMatch(/breathed out leaves unfiltered/);
	});

	it('stand beside a dust without adding to its ratio', () => {
		const alone = decide(airFacts('uk', [mg('general-dust', 30)]));
		const both = decide(airFacts('uk', [mg('general-dust', 30), inAir('biological-3', null)]));
		expect(both.hazardRatio).toBe(alone.hazardRatio);
		expect([alone.requiredFactor, both.requiredFactor]).toEqual([4, 20]);
	});

	it('mould sensitises: 20 in the UK', () =>
		expect(decide(airFacts('uk', [inAir('mould', null)])).requiredFactor).toBe(20));
});

// Published: NIOSH Pocket Guide recommendations with both a gas and a particle filter; from memory.
describe('combination hazards carry both filters', () => {
	it.each([
		['coal-tar-pitch', 0.5, /^A\d-P3$/, /^OV-/],
		['sulphuric-acid', 3, /^E\d-P/, /^AG-/],
		['phosphoric-acid', 4, /^E\d-P/, /^AG-/],
		['asphalt-fume', 20, /^A\d-P/, /^OV-/],
		['chlorpyrifos', 1, /^A\d-P/, /^OV-/],
		['malathion', 30, /^A\d-P/, /^OV-/]
	])('%s', (key, value, en, us) => {
		const limit = { value: value / 5, unit: 'mg/m3' as const };
		for (const ruleSet of BOTH) {
			const d = decide(
				airFacts(ruleSet, [mg(key, value, { limit, limitReason: 'worked example' })])
			);
			expect(d.outcome).toBe('filter');
			for (const { kind, filters } of d.permitted.filter(({ source }) => source === 'filter')) {
				expect([kind, filters?.en]).toEqual([kind, expect.stringMatching(en)]);
				expect([kind, filters?.us]).toEqual([kind, expect.stringMatching(us)]);
			}
			expect(kinds(d)).not.toContain('filtering-facepiece');
		}
	});

	it('cyanide salts: their gas too, which no US cartridge is approved for', () => {
		const uk = decide(airFacts('uk', [mg('sodium-cyanide', 4)]));
		expect(filterOf(uk, 'full-face')?.en).toMatch(/^B\d-P/);
		expect(decide(airFacts('us', [mg('sodium-cyanide', 12)])).outcome).toBe('supplied air');
	});

	it.each(BOTH)('%s: two-pack spray is never filtered', (ruleSet) => {
		const air = [mg('hdi', 0.1), inAir('n-butyl-acetate', 200)];
		const d = decide(airFacts(ruleSet, air));
		expect(d.outcome).toBe('supplied air');
		expect(d.permitted.filter(({ source }) => source === 'filter')).toEqual([]);
	});
});

// Common practice: what burns the eyes is not breathed behind a half mask without goggles.
describe('eyes', () => {
	it.each([
		['ammonia', 60],
		['chlorine', 3],
		['hydrogen-chloride', 6],
		['sulphur-dioxide', 6],
		['acrolein', 0.15]
	])('%s above its limit: goggles with what leaves the eyes bare, ranked behind', (key, ppm) => {
		for (const ruleSet of BOTH) {
			const d = decide(airFacts(ruleSet, [inAir(key, ppm)]));
			for (const kind of d.permitted) {
				const bare = /half-mask|filtering/.test(kind.kind);
				expect([kind.kind, kind.needsGoggles]).toEqual([kind.kind, bare]);
				expect(/gas-tight goggles/.test(kind.conditions.join())).toBe(bare);
			}
			expect(d.permitted[0]?.needsGoggles).toBe(false);
		}
	});

	it('asks for none at or below the limit, nor for what does not harm them', () => {
		for (const air of [inAir('ammonia', 20), inAir('toluene', 200)])
			expect(decide(airFacts('uk', [air])).permitted.some(({ needsGoggles }) => needsGoggles)).toBe(
				false
			);
	});
});

describe('skin', () => {
	it.each([
		['uk', 2.5],
		['us', 3.5]
	] as const)(
		'%s: hydrogen fluoride just above its limit is no reason for a gas-tight suit',
		(ruleSet, ppm) => {
			const d = decide(airFacts(ruleSet, [inAir('hydrogen-fluoride', ppm)]));
			expect([d.outcome, d.suit]).toEqual(['filter', 'skin protection']);
			expect(d.conditions.join()).toMatch(/Hydrogen fluoride: enters through the skin/);
		}
	);

	it('a gas-tight suit goes with full-face masks on their own air only', () => {
		for (const key of ['hydrogen-fluoride', 'fluorine', 'bromine']) {
			const d = decide(airFacts('us', [inAir(key, 29)], { emergency: 'none' }));
			if (d.suit !== 'gas-tight') continue;
			for (const kind of kinds(d)) expect(kind).toMatch(/full-face|^ba$/);
			expect(kinds(d).join()).not.toMatch(/demand/);
			expect(d.conditions.join()).toMatch(/gas-tight suit/);
		}
	});
});

// Published: NIOSH Pocket Guide recommendations for what does not warn; from memory.
describe('poor warning properties', () => {
	it.each([
		['us', 'hydrogen-sulphide', 25],
		['uk', 'hydrogen-sulphide', 12],
		['uk', 'nitrogen-dioxide', 2],
		['uk', 'phosphine', 0.8]
	] as const)('%s: %s: a canister mask or a powered device, no half mask', (ruleSet, key, ppm) => {
		const d = decide(airFacts(ruleSet, [inAir(key, ppm)]));
		const filtering = d.permitted.filter(({ source }) => source === 'filter');
		expect(filtering.length).toBeGreaterThan(0);
		for (const { kind } of filtering) expect(kind).toMatch(/^full-face$|^powered/);
		expect(d.rejected.find(({ kind }) => kind === 'half-mask')?.reason).toMatch(/warning|eyes/);
	});

	it('mercury: by its indicator in the US, by counted hours in the UK', () => {
		const of = (ruleSet: 'us' | 'uk') =>
			decide(airFacts(ruleSet, [mg('mercury', 0.5)]))
				.permitted.flatMap(({ conditions }) => conditions)
				.join();
		expect(of('us')).toMatch(/end-of-service-life indicator/);
		expect(of('uk')).toMatch(/50 h/);
	});

	it('chlorine dioxide: cartridges are accepted, by the clock', () => {
		const d = decide(airFacts('us', [inAir('chlorine-dioxide', 0.8)]));
		expect(kinds(d)).toContain('half-mask');
		expect(d.permitted.flatMap(({ conditions }) => conditions).join()).toMatch(/by the clock/);
	});

	it('smelt only above the limit in force is poor, whatever the library says in general', () => {
		const said = (ruleSet: 'us' | 'uk', key: string, ppm: number) =>
			decide(airFacts(ruleSet, [inAir(key, ppm)])).contaminants[0]?.warning;
		expect(said('uk', 'm-xylene', 60)).toBe('adequate');
		expect(
			decide(airFacts('uk', [inAir('m-xylene', 5, { limit: { value: 1, unit: 'ppm' } })]))
				.contaminants[0]?.warning
		).toBe('poor');
	});

	it('one described in the plan without a word on it gets no filter', () => {
		const described: ContaminantFact = {
			name: 'a solvent',
			form: 'vapour',
			boilingPointC: 120,
			molarMassGPerMol: 100,
			limit: { value: 50, unit: 'ppm' },
			warning: 'poor',
			concentration: { value: 200, unit: 'ppm' }
		};
		expect(decide(airFacts('uk', [described])).outcome).toBe('supplied air');
		expect(decide(airFacts('uk', [{ ...described, warning: 'adequate' }])).outcome).toBe('filter');
	});
});
