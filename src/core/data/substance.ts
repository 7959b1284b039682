import { computed, published, type Origin } from '../verdict.ts';
import type { ConcentrationUnit } from '../units/concentration.ts';

export type RuleSet = 'us' | 'uk';
/** Where in the body a substance acts; contaminants that share one add up. */
export type TargetOrgan = (typeof TARGET_ORGANS)[number];
export const TARGET_ORGANS = [
	'airways',
	'lungs',
	'eyes',
	'skin',
	'nerves',
	'blood',
	'heart',
	'liver',
	'kidneys',
	'bone',
	'reproduction'
] as const;
export type ContaminantForm = (typeof CONTAMINANT_FORMS)[number];
export const CONTAMINANT_FORMS = [
	'gas',
	'vapour',
	'dust',
	'mist',
	'fume',
	'oil aerosol',
	'biological'
] as const;

/** Kinds of harm that ask for more than the ratio to a limit does. */
export type Harm = (typeof HARMS)[number];
/** `eyes`: corrosive, lachrymatory or strongly irritating to the eyes. */
export const HARMS = ['sensitiser', 'carcinogen', 'weld fume', 'eyes'] as const;

/** What is done with a biological agent: `aerosol` is work that throws it into the air. */
export type BiologicalTask = (typeof BIOLOGICAL_TASKS)[number];
export const BIOLOGICAL_TASKS = ['ordinary', 'aerosol'] as const;

/** Gas filter type of EN 14387 that catches a substance. */
export type EnGasType = (typeof EN_GAS_TYPES)[number];
export const EN_GAS_TYPES = ['A', 'AX', 'B', 'E', 'K', 'SX', 'Hg', 'NO', 'CO'] as const;
/** Gas and vapour designation of 42 CFR 84 approvals. */
export type UsGasType = (typeof US_GAS_TYPES)[number];
export const US_GAS_TYPES = ['OV', 'AG', 'AM', 'FM', 'HS', 'HF', 'MV', 'CO'] as const;

/** An exposure limit: 8-hour mean, and a short-term or ceiling value. */
export interface ExposureLimit {
	twa?: number;
	short?: number;
	shortKind?: 'STEL' | 'ceiling';
	unit: ConcentrationUnit;
}

/** log10(p / mmHg) = a − b / (c + t / °C). */
export interface Antoine {
	a: number;
	b: number;
	c: number;
	/** Range in °C where it differs from the usual one (filters/vapour-pressure.ts). */
	fromC?: number;
	toC?: number;
}

/** One substance as the library holds it. Concentrations of gases in ppm, of particles in mg/m³. */
export interface Substance {
	key: string;
	name: string;
	synonyms: string[];
	cas?: string;
	formula?: string;
	form: ContaminantForm;
	/** Organic vapours compete for the same carbon; gases and particles do not. */
	organic: boolean;
	molarMassGPerMol?: number;
	boilingPointC?: number;
	/** Vapour pressure at 20 °C. */
	vapourPressureMmHg?: number;
	antoine?: Antoine;
	liquidDensityGPerCm3?: number;
	refractiveIndex?: number;
	limits: Partial<Record<RuleSet, ExposureLimit>>;
	/** Recommended limit of NIOSH; stands in where the US list has no legal one. */
	rel?: ExposureLimit;
	idlh?: { value: number; unit: ConcentrationUnit };
	/** Lower explosive limit, % by volume. */
	lelPercent?: number;
	odourThresholdPpm?: number;
	warning: 'adequate' | 'poor' | 'none';
	skin: boolean;
	/** Concentration from which the vapour itself harms the skin. */
	skinHarmPpm?: number;
	en?: EnGasType;
	us?: UsGasType;
	/** Why no air-purifying filter is accepted for it, where that is so. */
	noFilter?: string;
	organs?: TargetOrgan[];
	harms?: Harm[];
	/** Group of a biological agent, which fixes the least protection in place of a limit. */
	biologicalGroup?: 2 | 3 | 4;
	note?: string;
	/** Origins of single values that differ from the shipped ones, by field. */
	origins?: Partial<Record<SubstanceField, Origin>>;
}

/** Fields of a substance that carry an origin of their own. */
export type SubstanceField = keyof typeof SUBSTANCE_ORIGINS;

/** Where a value of a substance comes from: its own origin, else that of the shipped table. */
export const originOf = (
	substance: Pick<Substance, 'origins'>,
	field: SubstanceField
): Origin | undefined => substance.origins?.[field] ?? SUBSTANCE_ORIGINS[field];

/** Where the values of each field of the shipped table come from. */
export const SUBSTANCE_ORIGINS = {
	molarMassGPerMol: computed('from the formula with IUPAC standard atomic weights'),
	boilingPointC: published('CRC Handbook of Chemistry and Physics'),
	vapourPressureMmHg: published('CRC Handbook; NIOSH Pocket Guide'),
	antoine: published("Lange's Handbook of Chemistry, vapour pressure constants"),
	liquidDensityGPerCm3: published('CRC Handbook of Chemistry and Physics, 20 °C'),
	refractiveIndex: published('CRC Handbook of Chemistry and Physics, sodium D line, 20 °C'),
	formula: published('IUPAC nomenclature and CAS Registry'),
	limitUs: published('29 CFR 1910.1000 tables Z-1 and Z-2, and substance standards'),
	limitUk: published('HSE EH40/2005, workplace exposure limits'),
	rel: published('NIOSH recommended exposure limits'),
	idlh: published('NIOSH immediately dangerous to life or health values'),
	lelPercent: published('NIOSH Pocket Guide to Chemical Hazards'),
	odourThresholdPpm: published('AIHA odour thresholds'),
	warning: published('NIOSH Pocket Guide and OSHA preambles on warning properties'),
	skin: published('skin notations of the limit lists'),
	skinHarmPpm: { kind: 'common practice', source: 'level at which gas-tight suits are worn' },
	en: published('EN 14387 and EN 529, filter type'),
	us: published('42 CFR 84 and ANSI/ISEA Z88.7, cartridge type'),
	noFilter: { kind: 'common practice', source: 'known traps of air-purifying filters' },
	organs: published('NIOSH Pocket Guide, target organs; ACGIH, basis of the TLV'),
	harms: published(
		'EH40 notations Sen and Carc, GB CLP classification, NIOSH Pocket Guide on eye irritation'
	),
	biologicalGroup: published('HSE, The Approved List of biological agents')
} satisfies Record<string, Origin>;
