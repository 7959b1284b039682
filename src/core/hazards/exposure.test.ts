import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { findSubstance, SUBSTANCES } from '../data/substances.ts';
import type { RuleSet } from '../data/substance.ts';
import { InputError } from '../verdict.ts';
import { decideWithChanges, whatWouldChange } from './changes.ts';
import { compareRuleSets, rankForSite } from './compare.ts';
import { planDifference } from './difference.ts';
import { DEFAULT_FACTS, type ContaminantFact, type HazardFacts } from './facts.ts';
import { decide } from './ladder.ts';
import { planStatus } from './plan-status.ts';
import { briefScalaFactor } from './limits.ts';

const inAir = (
	key: string,
	value: number | null,
	part: Partial<ContaminantFact> = {}
): ContaminantFact => {
	const s = findSubstance(key);
	if (!s) throw new Error(key);
	const unit = s.limits.uk?.unit ?? s.limits.us?.unit ?? 'ppm';
	return {
		substance: key,
		name: s.name,
		form: s.form,
		concentration: value === null ? null : { value, unit },
		...part
	};
};
const facts = (contaminants: ContaminantFact[], part: Partial<HazardFacts> = {}): HazardFacts => ({
	...DEFAULT_FACTS,
	ruleSet: 'uk',
	contaminants,
	...part
});
const located = (run: () => unknown) => {
	try {
		run();
	} catch (error) {
		if (error instanceof InputError) return `${error.path}: ${error.message}`;
		throw error;
	}
	return 'accepted';
};

describe('peaks', () => {
	// Published: EH40, toluene 50 ppm over 8 h, 100 ppm over 15 min; from memory.
	it('the larger of mean and short-term ratio decides', () => {
		const calm = decide(facts([inAir('toluene', 100)]));
		const peaky = decide(facts([inAir('toluene', 100, { peak: { value: 420, unit: 'ppm' } })]));
		expect(calm.hazardRatio).toBeCloseTo(2, 9);
		expect(peaky.hazardRatio).toBeCloseTo(4.2, 9);
		expect(peaky.mixture?.by).toBe('short term');
		expect(peaky.requiredFactor).toBe(10);
	});

	// Published: EH40, where no short-term limit is listed three times the 8-hour one; from memory.
	it('stands against three times the mean limit where none is listed', () => {
		const peak = { value: 600, unit: 'ppm' as const };
		const d = decide(facts([inAir('ethylene-oxide', 0.1), inAir('n-hexane', 10, { peak })]));
		expect(d.contaminants[1]?.shortLimit?.value).toBe(60);
		expect(d.contaminants[1]?.shortRatio).toBeCloseTo(10, 9);
	});

	it('reach immediate danger and the explosive limit by their height', () => {
		const peak = { value: 320, unit: 'ppm' as const };
		expect(decide(facts([inAir('ammonia', 40, { peak })])).outcome).toBe('self-contained');
		const read = decide(facts([inAir('toluene', 20)], { lelReadingPercent: 10 }));
		expect([read.outcome, read.permitted]).toEqual(['stop', []]);
		expect(decide(facts([inAir('toluene', 60)], { lelReadingPercent: 9.9 })).outcome).toBe(
			'filter'
		);
	});
});

describe('several measurements', () => {
	it('enter with their upper limit, never below the highest', () => {
		const set = (values: number[]) =>
			inAir('toluene', null, { measurements: { values, unit: 'ppm' } });
		const d = decide(facts([set([60, 80, 75, 90, 66, 70])]));
		const c = d.contaminants[0];
		expect(c?.summary?.n).toBe(6);
		expect(c?.concentration?.value).toBeCloseTo(c?.summary?.upperLimit95 ?? NaN, 9);
		expect(c?.concentration?.value).toBeGreaterThanOrEqual(90);
		expect(located(() => decide(facts([set([60, 0, 75])])))).toMatch(
			/^contaminants\[0\]\.measurements\.values\[1\]: Toluene/
		);
		expect(located(() => decide(facts([set([60, 70])])))).toMatch(/three are the least/);
		expect(decide(facts([set([60, 70, 75])])).conditions.join()).toMatch(/EN 689 asks for 6/);
	});
});

describe('mixtures', () => {
	// Published: NIOSH target organs: chlorine airways, 1,1,1-trichloroethane nerves and heart; from memory.
	const air = [inAir('chlorine', 0.4), inAir('1-1-1-trichloroethane', 90)];
	it('add up unless the organs are shown to differ', () => {
		expect(decide(facts(air)).hazardRatio).toBeCloseTo(0.4 / 0.5 + 90 / 100, 9);
		const apart = decide(facts(air, { mixture: 'by organ' }));
		expect(apart.hazardRatio).toBeCloseTo(0.9, 9);
		expect(apart.mixture?.organ).toBe('nerves');
	});

	it('by organ is never stricter than all together, and unknown organs count everywhere', () => {
		const keys = SUBSTANCES.filter((s) => s.limits.uk?.unit === 'ppm').map((s) => s.key);
		const some = fc.array(fc.constantFrom(...keys), { minLength: 1, maxLength: 4 });
		fc.assert(
			fc.property(some, (list) => {
				const air = list.map((key) => inAir(key, (findSubstance(key)?.limits.uk?.twa ?? 1) * 0.4));
				const [all, apart] = [decide(facts(air)), decide(facts(air, { mixture: 'by organ' }))];
				expect(apart.hazardRatio ?? 0).toBeLessThanOrEqual((all.hazardRatio ?? 0) + 1e-9);
			}),
			{ numRuns: 60 }
		);
		const own = {
			name: 'own',
			form: 'vapour' as const,
			concentration: { value: 5, unit: 'ppm' as const },
			limit: { value: 10, unit: 'ppm' as const }
		};
		const d = decide(facts([...air, own], { mixture: 'by organ' }));
		expect(d.hazardRatio).toBeCloseTo(0.9 + 0.5, 9);
	});
});

describe('long shifts and altitude', () => {
	// Published: Brief & Scala, AIHA J. 36 (1975): 0.5 for 12 h, 0.7 for 10 h; from memory.
	it.each([
		[8, 1],
		[10, 0.7],
		[12, 0.5],
		[16, 0.25]
	])('%i h: %f', (hours, factor) => expect(briefScalaFactor(hours)).toBeCloseTo(factor, 9));

	it('lower the mean limit only, and only when asked', () => {
		const d = decide(facts([inAir('toluene', 40)], { longShiftHours: 12 }));
		expect(d.contaminants[0]?.limit?.value).toBe(25);
		expect(d.contaminants[0]?.shortLimit?.value).toBe(100);
		const ceiling = decide(facts([inAir('chlorine', 0.4)], { longShiftHours: 12 }));
		expect(ceiling.contaminants[0]?.limit?.value).toBe(0.5);
	});

	it('thin air makes more ppm of the same weight', () => {
		const air = [inAir('toluene', null, { concentration: { value: 190, unit: 'mg/m3' } })];
		const [low, high] = [decide(facts(air)), decide(facts(air, { altitudeFt: 8000 }))];
		expect((high.hazardRatio ?? 0) / (low.hazardRatio ?? 1)).toBeCloseTo(101.325 / 75.26, 2);
	});
});

describe('rules of single substances', () => {
	const kinds = (d: ReturnType<typeof decide>) => d.permitted.map((k) => k.kind);
	const codes = (d: ReturnType<typeof decide>) => d.permitted.find((k) => k.filters)?.filters;

	// Published: 29 CFR 1910.1001(g), 1910.1025(f), 1910.1018(h): class 100 filters; from memory.
	it.each(['asbestos', 'lead', 'arsenic', 'cadmium'])('%s takes class 100 in the US', (key) => {
		const limit = findSubstance(key)?.limits.us?.twa ?? NaN;
		const d = decide(facts([inAir(key, limit * 5)], { ruleSet: 'us' }));
		expect(codes(d)?.us).toBe('P100');
		if (key === 'asbestos') expect(kinds(d)).not.toContain('filtering-facepiece');
	});

	// Published: HSG258 and HSG247, a factor of 20 at least; from memory.
	it.each([
		['silica', 0.3],
		['asbestos', 0.3]
	])('%s calls for a factor of 20 in the UK at any level', (key, value) => {
		const d = decide(facts([inAir(key, value)]));
		expect(d.requiredFactor).toBe(20);
		expect(d.hazardRatio).toBeLessThanOrEqual(4);
		expect(Math.min(...d.permitted.map((k) => k.factor))).toBeGreaterThanOrEqual(20);
		expect(d.rejected.every((r) => r.reason.length > 10)).toBe(true);
	});

	// Published: fumigant label directions, 0.3 to 15 ppm a full-face canister mask; from memory.
	it('phosphine has no filter type in the US scheme: supplied air', () => {
		expect(decide(facts([inAir('phosphine', 4)], { ruleSet: 'us' })).outcome).toBe('supplied air');
		expect(decide(facts([inAir('phosphine', 15.1)], { ruleSet: 'us' })).outcome).toBe(
			'self-contained'
		);
	});

	// Published: 29 CFR 1910.1047(g), no half mask against ethylene oxide; from memory.
	it('ethylene oxide: no filter', () =>
		expect(decide(facts([inAir('ethylene-oxide', 3)], { ruleSet: 'us' })).outcome).toBe(
			'supplied air'
		));

	// Common practice: FFP2 for group 2, FFP3 for group 3, positive pressure for group 4.
	it('biological agents go by their group and need no figure', () => {
		const factor = (key: string) => decide(facts([inAir(key, null)])).requiredFactor;
		expect(['biological-2', 'biological-3', 'biological-4'].map(factor)).toEqual([10, 20, 40]);
		expect(kinds(decide(facts([inAir('biological-3', null)])))).toContain('filtering-facepiece');
		expect(kinds(decide(facts([inAir('biological-4', null)])))).not.toContain('half-mask');
	});

	it('a sprayed solvent needs a gas and a particle filter', () => {
		const d = decide(facts([inAir('n-butyl-acetate', 300, { form: 'mist' })]));
		expect(codes(d)?.en).toMatch(/^A1-P/);
		expect(codes(d)?.us).toMatch(/^OV-/);
	});
});

describe('a wanted life', () => {
	// Published: EN 14387 class tests of K, 50, 40, 60 min at 1000, 5000, 10,000 ppm, 30 L/min; halved, linear.
	it('calls for the class that lasts', () => {
		const code = (wantedLifeMin: number | null) =>
			decide(facts([inAir('ammonia', 240)], { wantedLifeMin })).permitted.find(
				(k) => k.kind === 'half-mask'
			)?.filters?.en;
		// By hand, through two filters at 40 L/min: K1 156 min, K2 625 min.
		expect([code(null), code(150), code(160), code(620)]).toEqual(['K1', 'K1', 'K2', 'K2']);
	});
});

describe('what would change the answer', () => {
	it('names both sides', () => {
		const d = decideWithChanges(facts([inAir('ammonia', 120)]));
		expect(d.changesIf[0]).toMatch(
			/^Above 300 ppm of Ammonia: airline full-face mask, pressure demand, with escape/
		);
	});

	it('is what the ladder answers on the far side, for any mixture', () => {
		const keys = SUBSTANCES.filter((s) => s.limits.uk && s.limits.us).map((s) => s.key);
		const row = fc.tuple(fc.constantFrom(...keys), fc.double({ min: 0.05, max: 12, noNaN: true }));
		fc.assert(
			fc.property(
				fc.array(row, { minLength: 1, maxLength: 3 }),
				fc.constantFrom<RuleSet>('us', 'uk'),
				(list, ruleSet) => {
					const air = list.map(([key, times]) => {
						const limit = findSubstance(key)?.limits[ruleSet];
						return inAir(key, null, {
							concentration: {
								value: (limit?.twa ?? limit?.short ?? 1) * times,
								unit: limit?.unit ?? 'ppm'
							}
						});
					});
					const plan = facts(air, { ruleSet });
					if (located(() => decide(plan)) !== 'accepted') return;
					const before = decide(plan);
					for (const change of whatWouldChange(plan, before)) {
						const beyond = change.at * (change.direction === 'above' ? 1.000001 : 0.999999);
						const moved = air.map((fact, k) =>
							k === change.index
								? { ...fact, concentration: { value: beyond, unit: change.unit } }
								: fact
						);
						const said = located(() => decide({ ...plan, contaminants: moved }));
						if (said !== 'accepted') continue;
						const after = decide({ ...plan, contaminants: moved });
						expect([
							after.outcome,
							after.permitted[0]?.kind,
							after.suit,
							after.permitted[0]?.filters
						]).not.toEqual([
							before.outcome,
							before.permitted[0]?.kind,
							before.suit,
							before.permitted[0]?.filters
						]);
					}
				}
			),
			{ numRuns: 60 }
		);
	});
});

describe('side by side', () => {
	it('shows where the two rule sets part', () => {
		const { sides, differ } = compareRuleSets(facts([inAir('silica', 0.6)]));
		expect(differ).toBe(true);
		expect(sides.map((s) => [s.ruleSet, s.required])).toEqual([
			['us', 25],
			['uk', 20]
		]);
		const refused = compareRuleSets(
			facts([inAir('grain-dust', null, { concentration: { value: 1, unit: 'ppm' } })])
		);
		expect(refused.sides.every((s) => s.decision === null && s.answer.includes('ppm'))).toBe(true);
	});

	it('puts what the site has ready before the lighter burden', () => {
		const { permitted } = decide(facts([inAir('styrene', 160)]));
		expect(rankForSite(permitted, {})[0]?.kind).toBe('half-mask');
		expect(rankForSite(permitted, { 'full-face': 2 })[0]).toMatchObject({
			kind: 'full-face',
			ready: 2
		});
	});
});

describe('forms that contradict the substance', () => {
	it.each([
		['ammonia', 'dust', /gas at any temperature/],
		['toluene', 'dust', /evaporates/],
		['silica', 'vapour', /gives no vapour/]
	] as const)('%s as %s', (key, form, message) =>
		expect(located(() => decide(facts([inAir(key, 1, { form })])))).toMatch(message)
	);
	it('fibres are not weighed', () =>
		expect(
			located(() =>
				decide(facts([inAir('asbestos', null, { concentration: { value: 1, unit: 'mg/m3' } })]))
			)
		).toMatch(/counted, not weighed/));
});

describe('versions of a plan', () => {
	it('differ in words', () => {
		const before = { task: 'Laminating', place: 'Shed', facts: facts([inAir('styrene', 160)]) };
		const after = {
			...before,
			facts: facts([inAir('styrene', 220), inAir('acetone', 30)], { oxygenPercent: 19 })
		};
		expect(planDifference(before, after)).toEqual([
			{ what: 'Styrene, mean', before: '160 ppm', after: '220 ppm' },
			{ what: 'Acetone', before: 'none', after: '30 ppm' },
			{ what: 'Oxygen', before: '20.9 %', after: '19 %' }
		]);
		expect(planDifference(before, before)).toEqual([]);
	});

	it('stand by their newest edition', () => {
		const edition = { edition: 1, version: 3, reviewOn: '2026-06-01', expiresOn: '2026-12-01' };
		const on = (asOf: string, part = {}) =>
			planStatus({ version: 3, edition, openFlags: 0, ...part }, asOf);
		expect(on('2026-05-31').outcome).toBe('in force');
		expect(on('2026-06-01').outcome).toBe('review due');
		expect(on('2026-12-01').outcome).toBe('review due');
		expect(on('2026-12-02').outcome).toBe('expired');
		expect(on('2026-05-01', { openFlags: 1 }).outcome).toBe('in question');
		expect(on('2026-05-01', { version: 4 })).toMatchObject({
			outcome: 'in force',
			draftAhead: true
		});
		expect(on('2026-05-01', { edition: null }).outcome).toBe('draft');
	});
});
