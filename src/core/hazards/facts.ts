import type { ContaminantForm, RuleSet, Substance } from '../data/substance.ts';
import { findSubstance } from '../data/substances.ts';
import type { WorkRate } from '../filters/service-life.ts';
import type { FitTest } from '../protection/factor.ts';
import { InputError } from '../verdict.ts';
import {
	mgPerM3ToPpm,
	ppmToMgPerM3,
	type Concentration,
	type ConcentrationUnit
} from '../units/concentration.ts';

/** One contaminant of a hazard plan, as entered. */
export interface ContaminantFact {
	/** Library key, when it comes from the library. */
	substance?: string | undefined;
	name: string;
	form: ContaminantForm;
	molarMassGPerMol?: number | undefined;
	boilingPointC?: number | undefined;
	idlhPpm?: number | undefined;
	warning?: 'adequate' | 'poor' | 'none' | undefined;
	/** null: not known. */
	concentration: Concentration | null;
	/** The limit the site works to; without it the library's limit of the rule set. */
	limit?: Concentration | null | undefined;
}

/** Everything that a hazard decision is made from. */
export interface HazardFacts {
	ruleSet: RuleSet;
	contaminants: ContaminantFact[];
	/** % by volume; null: not measured. */
	oxygenPercent: number | null;
	/** The employer has shown that oxygen stays within the range of the altitude exception (US). */
	oxygenStaysInRange: boolean;
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
	particle: boolean;
	concentration: Concentration | null;
	/** In ppm, where the molar mass is known. */
	ppm?: number | undefined;
	limit?: Concentration | undefined;
	limitSource: string;
	/** C / limit in one unit. */
	ratio?: number | undefined;
	/** Immediately dangerous concentration in the unit of the limit. */
	idlh?: Concentration | undefined;
	idlhRatio?: number | undefined;
	lelRatio?: number | undefined;
	boilingPointC?: number | undefined;
	organic: boolean;
	warning: 'adequate' | 'poor' | 'none';
}

/** Forms that a particle filter catches. */
export const PARTICLE_FORMS: readonly ContaminantForm[] = [
	'dust',
	'mist',
	'fume',
	'oil aerosol',
	'biological'
];

/**
 * Works out ratios to limits, immediate danger and explosion of one contaminant.
 * @throws InputError located at contaminants[index] on a limit of zero, a negative value or units that cannot
 *   be brought together.
 */
export function resolveContaminant(
	fact: ContaminantFact,
	index: number,
	facts: Pick<HazardFacts, 'ruleSet' | 'temperatureC'>
): Contaminant {
	const at = (field: string) => `contaminants[${index}].${field}`;
	const substance = fact.substance ? findSubstance(fact.substance) : undefined;
	if (fact.substance && !substance)
		throw new InputError(
			at('substance'),
			`No substance "${fact.substance}" in the library. Enter it by name with its molar mass.`
		);
	const molarMass = fact.molarMassGPerMol ?? substance?.molarMassGPerMol;
	const { concentration } = fact;
	if (concentration) checkAmount(concentration, at('concentration'), fact.name);
	const limit = limitOf(fact, substance, facts.ruleSet);
	if (limit && !(limit.value > 0))
		throw new InputError(at('limit'), `${fact.name}: a limit must be above zero.`);

	const convert = (value: Concentration, unit: ConcentrationUnit): number => {
		if (value.unit === unit) return value.value;
		if (!molarMass)
			throw new InputError(
				at('concentration.unit'),
				`${fact.name}: entered in ${written(value.unit)}, its limit is in ${written(unit)}, and without a molar mass the two cannot be compared.`
			);
		const state = { temperatureC: facts.temperatureC };
		return unit === 'ppm'
			? mgPerM3ToPpm(value.value, molarMass, state)
			: ppmToMgPerM3(value.value, molarMass, state);
	};
	const ppm =
		concentration && (concentration.unit === 'ppm' || molarMass)
			? convert(concentration, 'ppm')
			: undefined;
	if (ppm !== undefined && ppm > 1e6)
		throw new InputError(
			at('concentration'),
			`${fact.name}: more than 1,000,000 ppm is more than all of the air. Check the unit.`
		);
	const idlh = fact.idlhPpm ? { value: fact.idlhPpm, unit: 'ppm' as const } : substance?.idlh;
	const over = (value: Concentration | undefined) =>
		concentration && value ? convert(concentration, value.unit) / value.value : undefined;
	const lel = substance?.lelPercent;
	return {
		name: fact.name,
		substance,
		form: fact.form,
		particle: PARTICLE_FORMS.includes(fact.form),
		concentration,
		ppm,
		limit,
		limitSource: fact.limit
			? 'entered in the plan'
			: facts.ruleSet === 'us'
				? 'US limit of the library'
				: 'UK limit of the library',
		ratio: over(limit),
		idlh,
		idlhRatio: over(idlh),
		lelRatio: lel && ppm !== undefined ? ppm / (lel * 10_000) : undefined,
		boilingPointC: fact.boilingPointC ?? substance?.boilingPointC,
		organic: substance?.organic ?? fact.form === 'vapour',
		warning: fact.warning ?? substance?.warning ?? 'none'
	};
}

/** The limit that counts: entered, else 8-hour mean of the rule set, else its short-term or ceiling value. */
export function limitOf(
	fact: Pick<ContaminantFact, 'limit'>,
	substance: Substance | undefined,
	ruleSet: RuleSet
): Concentration | undefined {
	if (fact.limit) return fact.limit;
	const listed = substance?.limits[ruleSet];
	const value = listed?.twa ?? listed?.short;
	return listed && value !== undefined ? { value, unit: listed.unit } : undefined;
}

/** A unit as it is written for people. */
export const written = (unit: ConcentrationUnit) => (unit === 'mg/m3' ? 'mg/m³' : 'ppm');

function checkAmount(amount: Concentration, path: string, name: string): void {
	if (!Number.isFinite(amount.value) || amount.value < 0)
		throw new InputError(path, `${name}: a concentration cannot be below zero.`);
	if (amount.unit === 'mg/m3' && amount.value > 1e7)
		throw new InputError(path, `${name}: more than 10 kg/m³ is no air any more. Check the unit.`);
}
