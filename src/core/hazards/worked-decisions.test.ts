import { describe, expect, it } from 'vitest';
import type { RuleSet } from '../data/substance.ts';
import { findSubstance } from '../data/substances.ts';
import type { HazardOutcome, RungKey } from './decision.ts';
import { DEFAULT_FACTS, type ContaminantFact, type HazardFacts } from './facts.ts';
import { decide } from './ladder.ts';

/**
 * Decisions worked by hand from the text of the source named. Every source is quoted from memory; the limits are
 * given in the row, so that a corrected library value does not move them.
 */
interface Worked {
	source: string;
	ruleSet: RuleSet;
	air: [substance: string, value: number | null, unit: 'ppm' | 'mg/m3', limit: number | null][];
	part?: Partial<HazardFacts>;
	outcome: HazardOutcome;
	rung: RungKey;
	factor?: number | null;
	/** Must be permitted, must not be. */
	yes?: string[];
	no?: string[];
	en?: string;
	us?: string;
}

const OSHA = '29 CFR 1910.134';
const HSG53 = 'HSE HSG53';

const WORKED: Worked[] = [
	// Rung 1: 1910.134(d)(1)(iii), what cannot be estimated is treated as immediately dangerous.
	{
		source: `${OSHA}(d)(1)(iii)`,
		ruleSet: 'us',
		air: [['toluene', null, 'ppm', 200]],
		outcome: 'self-contained',
		rung: 'known',
		yes: ['ba', 'airline-full-face-escape'],
		no: ['half-mask', 'airline-full-face']
	},
	{
		source: `${HSG53}, unknown hazard`,
		ruleSet: 'uk',
		air: [['ammonia', null, 'ppm', 25]],
		outcome: 'self-contained',
		rung: 'known',
		no: ['ba-demand', 'full-face']
	},
	{
		source: `${OSHA}(d)(1)(iii), no limit to compare with`,
		ruleSet: 'us',
		air: [['welding-fume', 4, 'mg/m3', null]],
		outcome: 'self-contained',
		rung: 'known',
		factor: null
	},
	// Rung 2: (b) and (d)(2)(iii), oxygen below 19.5 %; table II, the exception by altitude.
	{
		source: `${OSHA}(b)`,
		ruleSet: 'us',
		air: [['toluene', 50, 'ppm', 200]],
		part: { oxygenPercent: 19.4 },
		outcome: 'self-contained',
		rung: 'oxygen'
	},
	{
		source: `${OSHA}(d)(2)(iii), table II`,
		ruleSet: 'us',
		air: [['toluene', 50, 'ppm', 200]],
		part: { oxygenPercent: 16.5, altitudeFt: 2000, oxygenStaysInRange: true },
		outcome: 'supplied air',
		rung: 'factor',
		yes: ['airline-half-mask'],
		no: ['half-mask']
	},
	{
		source: `${OSHA} table II, 5,001-6,000 ft`,
		ruleSet: 'us',
		air: [['toluene', 50, 'ppm', 200]],
		part: { oxygenPercent: 17.5, altitudeFt: 5500, oxygenStaysInRange: true },
		outcome: 'self-contained',
		rung: 'oxygen'
	},
	{
		source: `${HSG53}, oxygen-deficient`,
		ruleSet: 'uk',
		air: [['hydrogen-sulphide', 2, 'ppm', 5]],
		part: { oxygenPercent: 17, confinedSpace: true },
		outcome: 'self-contained',
		rung: 'oxygen'
	},
	{
		source: '29 CFR 1910.146(b), oxygen-enriched',
		ruleSet: 'us',
		air: [['toluene', 50, 'ppm', 200]],
		part: { oxygenPercent: 24 },
		outcome: 'stop',
		rung: 'oxygen'
	},
	// Rung 3: (d)(2)(i), IDLH; NIOSH IDLH values.
	{
		source: `${OSHA}(d)(2)(i), ammonia IDLH 300`,
		ruleSet: 'us',
		air: [['ammonia', 300, 'ppm', 50]],
		outcome: 'self-contained',
		rung: 'immediate-danger',
		no: ['full-face', 'airline-full-face', 'ba-demand']
	},
	{
		source: `${OSHA}(d)(2)(i), chlorine IDLH 10`,
		ruleSet: 'us',
		air: [['chlorine', 12, 'ppm', 1]],
		outcome: 'self-contained',
		rung: 'immediate-danger'
	},
	{
		source: `${OSHA}(d)(2)(i), hydrogen sulphide IDLH 100`,
		ruleSet: 'us',
		air: [['hydrogen-sulphide', 150, 'ppm', 20]],
		outcome: 'self-contained',
		rung: 'immediate-danger'
	},
	{
		source: `${HSG53}, immediate danger`,
		ruleSet: 'uk',
		air: [['phosphine', 60, 'ppm', 0.1]],
		outcome: 'self-contained',
		rung: 'immediate-danger'
	},
	{
		source: '29 CFR 1910.146(b), 10 % of the LEL: n-hexane 1.1 %',
		ruleSet: 'us',
		air: [['n-hexane', 1100, 'ppm', 500]],
		outcome: 'stop',
		rung: 'immediate-danger'
	},
	{
		source: '29 CFR 1910.146(b), 10 % of the LEL: acetone 2.5 %',
		ruleSet: 'us',
		air: [['acetone', 2500, 'ppm', 1000]],
		outcome: 'stop',
		rung: 'immediate-danger'
	},
	// Rungs 4 and 5: (g)(4) interior structural fire, (d)(2)(ii) escape.
	{
		source: `${OSHA}(g)(4)`,
		ruleSet: 'us',
		air: [['carbon-monoxide', 100, 'ppm', 50]],
		part: { fire: true },
		outcome: 'self-contained',
		rung: 'fire'
	},
	{
		source: `${OSHA}(d)(2), rescue`,
		ruleSet: 'us',
		air: [['ammonia', 100, 'ppm', 50]],
		part: { emergency: 'entry' },
		outcome: 'self-contained',
		rung: 'fire'
	},
	{
		source: `${OSHA}(d)(2)(ii)`,
		ruleSet: 'us',
		air: [['chlorine', 20, 'ppm', 1]],
		part: { emergency: 'escape' },
		outcome: 'escape set',
		rung: 'escape',
		no: ['half-mask']
	},
	{
		source: `${HSG53}, escape sets`,
		ruleSet: 'uk',
		air: [['ammonia', 100, 'ppm', 25]],
		part: { emergency: 'escape' },
		outcome: 'escape set',
		rung: 'escape'
	},
	// Rung 6: vapour that harms the skin. Common practice.
	{
		source: 'common practice, fluorine',
		ruleSet: 'uk',
		air: [['fluorine', 6, 'ppm', 1]],
		outcome: 'supplied air',
		rung: 'skin'
	},
	// Rung 7: substance standards.
	{
		source: '29 CFR 1910.1051 table 1, up to 50 ppm',
		ruleSet: 'us',
		air: [['1-3-butadiene', 9, 'ppm', 1]],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		yes: ['half-mask'],
		us: 'OV'
	},
	{
		source: '29 CFR 1910.1051 table 1, above 50 ppm',
		ruleSet: 'us',
		air: [['1-3-butadiene', 60, 'ppm', 1]],
		outcome: 'supplied air',
		rung: 'substance-rule'
	},
	{
		source: '29 CFR 1910.1052(g), table 2',
		ruleSet: 'us',
		air: [['dichloromethane', 200, 'ppm', 25]],
		outcome: 'supplied air',
		rung: 'substance-rule',
		no: ['half-mask', 'full-face']
	},
	{
		source: '29 CFR 1910.1017(g)',
		ruleSet: 'us',
		air: [['vinyl-chloride', 5, 'ppm', 1]],
		outcome: 'supplied air',
		rung: 'substance-rule'
	},
	{
		source: '29 CFR 1910.1028(g), up to 10 ppm a half mask',
		ruleSet: 'us',
		air: [['benzene', 9, 'ppm', 1]],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		yes: ['half-mask'],
		us: 'OV'
	},
	{
		source: '29 CFR 1910.1048(g), up to 7.5 ppm a factor of 10',
		ruleSet: 'us',
		air: [['formaldehyde', 7, 'ppm', 0.75]],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		us: 'FM'
	},
	// Rung 8: nothing to rely on.
	{
		source: '42 CFR 84, no chemical cartridge for carbon monoxide',
		ruleSet: 'us',
		air: [['carbon-monoxide', 120, 'ppm', 50]],
		outcome: 'supplied air',
		rung: 'filter-exists'
	},
	{
		source: 'HSE guidance on isocyanate paint spraying: air-fed equipment',
		ruleSet: 'uk',
		air: [['hdi', 0.1, 'mg/m3', 0.02]],
		outcome: 'supplied air',
		rung: 'filter-exists',
		yes: ['airline-hood']
	},
	{
		source: 'EN 14387, AX not in mixtures',
		ruleSet: 'uk',
		air: [
			['acetone', 300, 'ppm', 500],
			['toluene', 60, 'ppm', 50]
		],
		outcome: 'supplied air',
		rung: 'filter-exists'
	},
	{
		source: 'common practice, methanol and carbon',
		ruleSet: 'uk',
		air: [['methanol', 400, 'ppm', 200]],
		outcome: 'supplied air',
		rung: 'filter-exists'
	},
	// Rung 9: (d)(3)(i)(A), table 1: half 10, full 50, powered hood 25, powered full 1000.
	{
		source: `${OSHA} table 1, 5 × the limit`,
		ruleSet: 'us',
		air: [['toluene', 450, 'ppm', 100]],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		yes: ['half-mask', 'full-face'],
		us: 'OV'
	},
	{
		source: `${OSHA} table 1, 20 × the limit`,
		ruleSet: 'us',
		air: [['ammonia', 200, 'ppm', 10]],
		outcome: 'filter',
		rung: 'factor',
		factor: 25,
		yes: ['powered-hood', 'full-face'],
		no: ['half-mask'],
		us: 'AM'
	},
	{
		source: `${OSHA} table 1, 40 × the limit`,
		ruleSet: 'us',
		air: [['sulphur-dioxide', 40, 'ppm', 1]],
		outcome: 'filter',
		rung: 'factor',
		factor: 50,
		yes: ['full-face', 'powered-half-mask'],
		no: ['powered-hood'],
		us: 'AG'
	},
	{
		source: `${OSHA} table 1, 500 × the limit`,
		ruleSet: 'us',
		air: [['lead', 25, 'mg/m3', 0.05]],
		outcome: 'filter',
		rung: 'factor',
		factor: 1000,
		yes: ['powered-full-face'],
		no: ['full-face']
	},
	{
		source: `${OSHA} table 1, 1,500 × the limit`,
		ruleSet: 'us',
		air: [['lead', 75, 'mg/m3', 0.05]],
		outcome: 'self-contained',
		rung: 'factor',
		factor: 10000,
		yes: ['ba'],
		no: ['airline-full-face']
	},
	{
		source: '42 CFR 84.190 table 11, organic vapour cartridges to 1000 ppm',
		ruleSet: 'us',
		air: [['ethanol', 1200, 'ppm', 500]],
		outcome: 'supplied air',
		rung: 'factor',
		factor: 10
	},
	// HSG53 and EN 529: half gas 10, full gas 20, half P3 20, full P3 40.
	{
		source: `${HSG53}, half mask with gas filter 10`,
		ruleSet: 'uk',
		air: [['styrene', 900, 'ppm', 100]],
		part: {},
		outcome: 'stop',
		rung: 'immediate-danger'
	},
	{
		source: `${HSG53}, half mask with gas filter 10`,
		ruleSet: 'uk',
		air: [['styrene', 450, 'ppm', 50]],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		yes: ['half-mask'],
		en: 'A1'
	},
	{
		source: `${HSG53}, full-face with gas filter 20`,
		ruleSet: 'uk',
		air: [['styrene', 600, 'ppm', 40]],
		outcome: 'filter',
		rung: 'factor',
		factor: 20,
		yes: ['full-face'],
		no: ['half-mask'],
		en: 'A1'
	},
	{
		source: `${HSG53}, half mask with P3 20`,
		ruleSet: 'uk',
		air: [['hardwood-dust', 50, 'mg/m3', 3]],
		outcome: 'filter',
		rung: 'factor',
		factor: 20,
		yes: ['half-mask', 'filtering-facepiece']
	},
	{
		source: `${HSG53}, full-face with P3 40`,
		ruleSet: 'uk',
		air: [['silica', 3, 'mg/m3', 0.1]],
		outcome: 'filter',
		rung: 'factor',
		factor: 40,
		yes: ['full-face'],
		no: ['half-mask', 'filtering-facepiece']
	},
	{
		source: `${HSG53}, above every filter`,
		ruleSet: 'uk',
		air: [['silica', 5, 'mg/m3', 0.1]],
		outcome: 'supplied air',
		rung: 'factor',
		factor: 2000,
		yes: ['airline-full-face']
	},
	{
		source: 'ACGIH, additive mixture formula',
		ruleSet: 'uk',
		air: [
			['styrene', 60, 'ppm', 100],
			['toluene', 30, 'ppm', 50]
		],
		outcome: 'filter',
		rung: 'factor',
		factor: 4,
		en: 'A1'
	},
	{
		source: 'EN 14387 and EN 143, combination',
		ruleSet: 'uk',
		air: [
			['ammonia', 60, 'ppm', 25],
			['general-dust', 30, 'mg/m3', 10]
		],
		outcome: 'filter',
		rung: 'factor',
		factor: 10,
		yes: ['half-mask']
	},
	// Rung 10: (f) fit, (g)(1) facial hair.
	{
		source: `${OSHA}(g)(1)(i), facial hair`,
		ruleSet: 'us',
		air: [['toluene', 450, 'ppm', 100]],
		part: { facialHair: true },
		outcome: 'filter',
		rung: 'factor',
		yes: ['powered-hood'],
		no: ['half-mask', 'full-face', 'airline-full-face']
	},
	{
		source: `${OSHA}(f)(6), qualitative test`,
		ruleSet: 'us',
		air: [['ammonia', 200, 'ppm', 10]],
		part: { fitTest: 'qualitative' },
		outcome: 'filter',
		rung: 'factor',
		no: ['full-face'],
		yes: ['powered-hood']
	}
];

describe('worked decisions', () => {
	it('are at least forty, on every rung that decides, under both rule sets', () => {
		expect(WORKED.length).toBeGreaterThanOrEqual(40);
		const rungs = new Set(WORKED.map((w) => w.rung));
		for (const rung of [
			'known',
			'oxygen',
			'immediate-danger',
			'fire',
			'escape',
			'skin',
			'substance-rule',
			'filter-exists',
			'factor'
		] as const)
			expect(rungs, rung).toContain(rung);
		expect(new Set(WORKED.map((w) => w.ruleSet)).size).toBe(2);
	});

	it.each(
		WORKED.map(
			(w) =>
				[`${w.source}: ${w.air.map(([s, v]) => `${s} ${v ?? 'unknown'}`).join(', ')}`, w] as const
		)
	)('%s', (_, worked) => {
		const contaminants = worked.air.map(([key, value, unit, limit]): ContaminantFact => {
			const substance = findSubstance(key);
			if (!substance) throw new Error(`no substance ${key}`);
			return {
				substance: key,
				name: substance.name,
				form: substance.form,
				concentration: value === null ? null : { value, unit },
				limit: limit === null ? null : { value: limit, unit }
			};
		});
		const decision = decide({
			...DEFAULT_FACTS,
			ruleSet: worked.ruleSet,
			contaminants,
			...worked.part
		});
		const kinds = decision.permitted.map((kind) => kind.kind);
		expect(decision.outcome).toBe(worked.outcome);
		expect(decision.rungs.find((rung) => rung.answer === 'decides')?.key).toBe(worked.rung);
		if (worked.factor !== undefined) expect(decision.requiredFactor).toBe(worked.factor);
		for (const kind of worked.yes ?? []) expect(kinds).toContain(kind);
		for (const kind of worked.no ?? []) expect(kinds).not.toContain(kind);
		const filters = decision.permitted.find((kind) => kind.filters)?.filters;
		if (worked.en) expect(filters?.en).toBe(worked.en);
		if (worked.us) expect(filters?.us).toBe(worked.us);
		// Every reason names where it comes from.
		for (const reason of decision.reasons) expect(reason.origin.source.length).toBeGreaterThan(3);
	});
});
