import { published, type Origin } from '../verdict.ts';
import type { BiologicalTask, Harm, RuleSet } from './substance.ts';

export const PROTECTION_FACTOR_ORIGIN: Record<RuleSet, Origin> = {
	us: published('29 CFR 1910.134(d)(3)(i)(A), table 1'),
	uk: published('HSE HSG53 and EN 529 annex C')
};

/** Every assigned factor that the rule set knows, ascending. */
export const ASSIGNED_FACTORS: Record<RuleSet, readonly number[]> = {
	us: [10, 25, 50, 1000, 10000],
	uk: [4, 10, 20, 40, 2000]
};

/**
 * Least factor against a biological agent by its group and the task; none has a limit, so that nothing is a ratio.
 * Published: HSE and CDC guidance: FFP2 or N95 for group 2, FFP3 for group 3 and for work that throws any of them
 * into the air, positive pressure for group 4; from memory.
 */
export const BIOLOGICAL_FACTOR: Record<
	RuleSet,
	Record<2 | 3 | 4, Record<BiologicalTask, number>>
> = {
	us: {
		2: { ordinary: 10, aerosol: 10 },
		3: { ordinary: 10, aerosol: 25 },
		4: { ordinary: 1000, aerosol: 1000 }
	},
	uk: {
		2: { ordinary: 10, aerosol: 20 },
		3: { ordinary: 20, aerosol: 20 },
		4: { ordinary: 40, aerosol: 40 }
	}
};
export const BIOLOGICAL_ORIGIN: Record<RuleSet, Origin> = {
	us: published('CDC guidance on respirators against infectious aerosols'),
	uk: published('HSE guidance on biological agents by hazard group, and HSG53')
};

/**
 * Least factor by kind of harm, whatever the ratio says: respiratory sensitisers, carcinogens and welding fume.
 * Published: HSE guidance on asthmagens, carcinogens and welding fume; from memory.
 */
export const HARM_FACTOR: Record<RuleSet, Partial<Record<Harm, number>>> = {
	us: {},
	uk: { sensitiser: 20, carcinogen: 20, 'weld fume': 20 }
};
export const HARM_ORIGIN = published('HSE guidance on asthmagens, carcinogens and welding fume');

export type ParticleClass = (typeof PARTICLE_CLASSES)[number];
/** The weakest first. */
export const PARTICLE_CLASSES = ['P1', 'P2', 'P3'] as const;

/** A kind of respiratory protection and what the two rule sets credit it with. */
export interface ProtectionKind {
	key: string;
	label: string;
	source: 'filter' | 'airline' | 'self-contained';
	tightFitting: boolean;
	coversEyes: boolean;
	negativePressure: boolean;
	/** Demand devices leak inwards: never where outside air must be kept out at immediate danger. */
	positivePressure: boolean;
	/** Filters that share the flow; left out: one. */
	filters?: number;
	/** Air that its blower moves all day, breathing or not. Published: 42 CFR 84, least flow; from memory. */
	blowerLPerMin?: number;
	/** How much it asks of the wearer, 1 = least. Common practice. */
	burden: number;
	catches: 'particles' | 'gas and particles';
	/** Assigned factor against gases; undefined when the kind is not made for them. */
	gas?: Partial<Record<RuleSet, number>>;
	/** Assigned factor against particles by particle class; the US table does not ask for the class. */
	particle?: Partial<Record<RuleSet, number | Partial<Record<ParticleClass, number>>>>;
	/** Assigned factor of supplied air, whatever the contaminant. */
	supplied?: Partial<Record<RuleSet, number>>;
	/** What the factor holds for, by rule set. */
	note?: Partial<Record<RuleSet, string>>;
}

/** Kinds and factors. Published as PROTECTION_FACTOR_ORIGIN says, from memory. */
// prettier-ignore
export const PROTECTION_KINDS: readonly ProtectionKind[] = [
	{ key: 'filtering-facepiece', label: 'Filtering facepiece, disposable', source: 'filter', tightFitting: true, coversEyes: false, negativePressure: true, positivePressure: false, burden: 1, catches: 'particles', particle: { us: 10, uk: { P1: 4, P2: 10, P3: 20 } } },
	{ key: 'half-mask', label: 'Half mask with filters', source: 'filter', filters: 2, tightFitting: true, coversEyes: false, negativePressure: true, positivePressure: false, burden: 2, catches: 'gas and particles', gas: { us: 10, uk: 10 }, particle: { us: 10, uk: { P1: 4, P2: 10, P3: 20 } } },
	{ key: 'full-face', label: 'Full-face mask with filters', source: 'filter', tightFitting: true, coversEyes: true, negativePressure: true, positivePressure: false, burden: 4, catches: 'gas and particles', gas: { us: 50, uk: 20 }, particle: { us: 50, uk: { P1: 4, P2: 10, P3: 40 } } },
	{ key: 'powered-hood', label: 'Powered hood or helmet', source: 'filter', filters: 2, blowerLPerMin: 170, tightFitting: false, coversEyes: true, negativePressure: false, positivePressure: false, burden: 3, catches: 'gas and particles', gas: { us: 25, uk: 40 }, particle: { us: 25, uk: 40 }, note: { uk: 'Class TH3.', us: 'A factor of 1000 only with the maker’s evidence.' } },
	{ key: 'powered-half-mask', label: 'Powered half mask', source: 'filter', filters: 2, blowerLPerMin: 115, tightFitting: true, coversEyes: false, negativePressure: false, positivePressure: false, burden: 3, catches: 'gas and particles', gas: { us: 50, uk: 40 }, particle: { us: 50, uk: 40 }, note: { uk: 'Class TM3.' } },
	{ key: 'powered-full-face', label: 'Powered full-face mask', source: 'filter', filters: 2, blowerLPerMin: 115, tightFitting: true, coversEyes: true, negativePressure: false, positivePressure: false, burden: 5, catches: 'gas and particles', gas: { us: 1000, uk: 40 }, particle: { us: 1000, uk: 40 }, note: { uk: 'Class TM3.' } },
	{ key: 'airline-half-mask-demand', label: 'Airline half mask, demand', source: 'airline', tightFitting: true, coversEyes: false, negativePressure: true, positivePressure: false, burden: 5, catches: 'gas and particles', supplied: { us: 10 } },
	{ key: 'airline-half-mask', label: 'Airline half mask, continuous flow', source: 'airline', tightFitting: true, coversEyes: false, negativePressure: false, positivePressure: false, burden: 5, catches: 'gas and particles', supplied: { us: 50, uk: 20 } },
	{ key: 'airline-hood', label: 'Airline hood or helmet, continuous flow', source: 'airline', tightFitting: false, coversEyes: true, negativePressure: false, positivePressure: false, burden: 5, catches: 'gas and particles', supplied: { us: 25, uk: 40 }, note: { uk: 'Class 3.', us: 'A factor of 1000 only with the maker’s evidence.' } },
	{ key: 'airline-full-face-demand', label: 'Airline full-face mask, demand', source: 'airline', tightFitting: true, coversEyes: true, negativePressure: true, positivePressure: false, burden: 6, catches: 'gas and particles', supplied: { us: 50 } },
	{ key: 'airline-full-face-continuous', label: 'Airline full-face mask, continuous flow', source: 'airline', tightFitting: true, coversEyes: true, negativePressure: false, positivePressure: false, burden: 6, catches: 'gas and particles', supplied: { us: 1000, uk: 40 } },
	{ key: 'airline-full-face', label: 'Airline full-face mask, pressure demand', source: 'airline', tightFitting: true, coversEyes: true, negativePressure: false, positivePressure: true, burden: 6, catches: 'gas and particles', supplied: { us: 1000, uk: 2000 } },
	{ key: 'airline-full-face-escape', label: 'Airline full-face mask, pressure demand, with escape cylinder', source: 'self-contained', tightFitting: true, coversEyes: true, negativePressure: false, positivePressure: true, burden: 7, catches: 'gas and particles', supplied: { us: 1000, uk: 2000 } },
	{ key: 'ba-demand', label: 'Breathing apparatus, full face, demand', source: 'self-contained', tightFitting: true, coversEyes: true, negativePressure: true, positivePressure: false, burden: 8, catches: 'gas and particles', supplied: { us: 50, uk: 40 } },
	{ key: 'ba', label: 'Breathing apparatus, full face, positive pressure', source: 'self-contained', tightFitting: true, coversEyes: true, negativePressure: false, positivePressure: true, burden: 8, catches: 'gas and particles', supplied: { us: 10000, uk: 2000 } }
];

/** The kind of a key; undefined where there is none. */
export const protectionKind = (key: string | undefined): ProtectionKind | undefined =>
	PROTECTION_KINDS.find((kind) => kind.key === key);
