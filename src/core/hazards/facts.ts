import type {
	BiologicalTask,
	ContaminantForm,
	ExposureLimit,
	Harm,
	RuleSet,
	Substance,
	TargetOrgan
} from '../data/substance.ts';
import type { WorkRate } from '../filters/service-life.ts';
import type { FitTest } from '../protection/factor.ts';
import type { Concentration, ConcentrationUnit } from '../units/concentration.ts';
import type { LognormalSummary } from '../stats/lognormal.ts';

/** One contaminant of a hazard plan, as entered. */
export interface ContaminantFact {
	/** Library key, when it comes from the library. */
	substance?: string | undefined;
	name: string;
	form: ContaminantForm;
	molarMassGPerMol?: number | undefined;
	boilingPointC?: number | undefined;
	idlhPpm?: number | undefined;
	/** Lower explosive limit, % by volume. */
	lelPercent?: number | undefined;
	warning?: 'adequate' | 'poor' | 'none' | undefined;
	/** Mean over the task; null: not known. */
	concentration: Concentration | null;
	/** Several measurements, which stand in place of the single concentration. */
	measurements?: { values: number[]; unit: ConcentrationUnit } | null | undefined;
	/** Highest mean over 15 minutes, where it was measured. */
	peak?: Concentration | null | undefined;
	basis?: 'measured' | 'estimated' | undefined;
	/** YYYY-MM-DD */
	measuredOn?: string | undefined;
	/** The limit the site works to; without it the library's limits of the rule set. */
	limit?: Concentration | null | undefined;
	/** Why a limit laxer than the published one is kept; without it the published one decides. */
	limitReason?: string | undefined;
	/** What is done with a biological agent. Default: ordinary. */
	biologicalTask?: BiologicalTask | undefined;
}

/** Everything that a hazard decision is made from. */
export interface HazardFacts {
	ruleSet: RuleSet;
	contaminants: ContaminantFact[];
	/** Whether all contaminants add up, or only those with a common target organ. Default: all. */
	mixture?: 'all' | 'by organ' | undefined;
	/** % by volume; null: not measured; left out: not said. */
	oxygenPercent?: number | null | undefined;
	/** The employer has shown that oxygen stays within the range of the altitude exception (US). */
	oxygenStaysInRange: boolean;
	/** Highest reading of a combustible-gas meter, % of the lower explosive limit. */
	lelReadingPercent?: number | null | undefined;
	altitudeFt: number;
	confinedSpace: boolean;
	fire: boolean;
	emergency: 'none' | 'entry' | 'escape';
	fitTest: FitTest;
	facialHair: boolean;
	oilAerosol: boolean;
	temperatureC: number;
	relativeHumidityPercent: number;
	workRate: WorkRate;
	/** Minutes of exposure in one shift. */
	exposureMin: number;
	/** Hours of a long shift for which the 8-hour limits are lowered; null: not lowered. */
	longShiftHours?: number | null | undefined;
	/** Minutes that the filters should last, which may call for a higher class; null: no wish. */
	wantedLifeMin?: number | null | undefined;
}

export const DEFAULT_FACTS: Omit<HazardFacts, 'ruleSet' | 'contaminants'> = {
	oxygenPercent: 20.9,
	oxygenStaysInRange: false,
	altitudeFt: 0,
	confinedSpace: false,
	fire: false,
	emergency: 'none',
	fitTest: 'quantitative',
	facialHair: false,
	oilAerosol: false,
	temperatureC: 20,
	relativeHumidityPercent: 50,
	workRate: 'moderate',
	exposureMin: 480
};

/** A contaminant with what the ladder needs worked out. */
export interface Contaminant {
	name: string;
	substance?: Substance | undefined;
	form: ContaminantForm;
	/** Needs a particle filter. */
	particle: boolean;
	/** Needs a gas filter; a mist of something that evaporates needs both. */
	gas: boolean;
	/** What the plan is made with: the entered value, or the upper limit of the measurements. */
	concentration: Concentration | null;
	/** What several measurements say. */
	summary?: LognormalSummary | undefined;
	/** Mean in ppm, where the molar mass is known. */
	ppm?: number | undefined;
	/** The higher of mean and short-term peak, ppm. */
	peakPpm?: number | undefined;
	limit?: Concentration | undefined;
	limitSource: string;
	shortLimit?: Concentration | undefined;
	shortLimitSource: string;
	/** Mean over the 8-hour limit. */
	meanRatio?: number | undefined;
	/** Peak over the short-term limit. */
	shortRatio?: number | undefined;
	/** The larger of the two; none for a biological agent. */
	ratio?: number | undefined;
	/** An entered limit that is laxer than the published one, and which of them is in force. */
	laxer?: LaxerLimit | undefined;
	/** Immediately dangerous concentration in its own unit. */
	idlh?: Concentration | undefined;
	idlhRatio?: number | undefined;
	lelRatio?: number | undefined;
	boilingPointC?: number | undefined;
	organic: boolean;
	warning: 'adequate' | 'poor' | 'none';
	organs: readonly TargetOrgan[];
	harms: readonly Harm[];
	biologicalTask: BiologicalTask;
}

/** Gas of several contaminants together, each at its highest, ppm. */
export const gasPpm = (contaminants: readonly Contaminant[]): number =>
	contaminants.reduce((sum, c) => sum + (c.gas ? (c.peakPpm ?? 0) : 0), 0);

/** Forms that a particle filter catches. */
export const PARTICLE_FORMS: readonly ContaminantForm[] = [
	'dust',
	'mist',
	'fume',
	'oil aerosol',
	'biological'
];

const UNITS: Record<ConcentrationUnit, string> = {
	ppm: 'ppm',
	'mg/m3': 'mg/m³',
	'f/cm3': 'fibres/cm³'
};

/** A unit as it is written for people. */
export const written = (unit: ConcentrationUnit) => UNITS[unit];

/** An entered limit above the published one. */
export interface LaxerLimit {
	entered: Concentration;
	published: Concentration;
	/** Why the entered one is kept; undefined: the published one decides. */
	reason?: string | undefined;
}

/** The listed limits of a substance under a rule set; the recommended US ones where no legal one is. */
export const listedLimit = (
	substance: Substance | undefined,
	ruleSet: RuleSet
): ExposureLimit | undefined =>
	substance?.limits[ruleSet] ?? (ruleSet === 'us' ? substance?.rel : undefined);

/** The published limit that counts: 8-hour mean of the rule set, else its short-term or ceiling value. */
export function publishedLimit(
	substance: Substance | undefined,
	ruleSet: RuleSet
): Concentration | undefined {
	const listed = listedLimit(substance, ruleSet);
	const value = listed?.twa ?? listed?.short;
	return listed && value !== undefined ? { value, unit: listed.unit } : undefined;
}
