import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import type { Substance } from '../data/substance.ts';
import { pressureAtAltitudeKpa } from '../units/altitude.ts';
import {
	mgPerM3ToPpm,
	ppmToMgPerM3,
	type Concentration,
	type ConcentrationUnit
} from '../units/concentration.ts';
import { summariseExposure } from '../stats/lognormal.ts';
import { InputError } from '../verdict.ts';
import {
	limitOf,
	listedLimit,
	PARTICLE_FORMS,
	written,
	type Contaminant,
	type ContaminantFact,
	type HazardFacts
} from './facts.ts';
import { BIOLOGICAL_FACTOR } from '../data/protection-factors.ts';

/**
 * A short-term limit where the list has none: so many times the 8-hour one.
 * Published: HSE EH40, paragraph on short-term exposure limits; ACGIH excursion guidance; from memory.
 */
export const SHORT_TERM_MULTIPLE = 3;

type Around = Pick<HazardFacts, 'ruleSet' | 'temperatureC' | 'altitudeFt' | 'longShiftHours'>;

/**
 * Works out ratios to limits, immediate danger and explosion of one contaminant.
 * @throws InputError located at contaminants[index] on a limit of zero, a negative value, a form the substance
 *   cannot have, or units that cannot be brought together.
 */
export function resolveContaminant(
	fact: ContaminantFact,
	index: number,
	facts: Around,
	library: SubstanceLibrary = SHIPPED
): Contaminant {
	const at = (field: string) => `contaminants[${index}].${field}`;
	const substance = fact.substance ? library.find(fact.substance) : undefined;
	if (fact.substance && !substance)
		throw new InputError(
			at('substance'),
			`No substance "${fact.substance}" in the library. Enter it by name with its molar mass.`
		);
	checkForm(fact, substance, at('form'));
	const { concentration, summary } = concentrationOf(fact, at);
	const limit = limitOf(fact, substance, facts.ruleSet);
	for (const [amount, field] of [
		[concentration, 'concentration'],
		[fact.peak, 'peak']
	] as const)
		if (amount) checkAmount(amount, at(field), fact.name);
	if (limit && !(limit.value > 0))
		throw new InputError(at('limit'), `${fact.name}: a limit must be above zero.`);

	const convert = converter(fact, substance, facts, at);
	const peak = higher(concentration, fact.peak ?? null, convert);
	const toPpm = (amount: Concentration | null, field: string) => {
		if (!amount || !convert.possible(amount.unit, 'ppm')) return undefined;
		const ppm = convert(amount, 'ppm');
		if (ppm > 1e6)
			throw new InputError(
				at(field),
				`${fact.name}: more than 1,000,000 ppm is more than all of the air. Check the unit.`
			);
		return ppm;
	};
	const ppm = toPpm(concentration, 'concentration');
	const peakPpm = toPpm(peak, 'peak');
	const idlh = fact.idlhPpm ? { value: fact.idlhPpm, unit: 'ppm' as const } : substance?.idlh;
	const over = (amount: Concentration | null, value: Concentration | undefined) =>
		amount && value ? convert(amount, value.unit) / value.value : undefined;
	const short = shortLimitOf(fact, substance, facts.ruleSet, limit);
	const lowered = longShift(limit, substance, facts);
	const meanRatio = over(concentration, lowered);
	const shortRatio = over(peak, short);
	const lel = fact.lelPercent ?? substance?.lelPercent;
	const group = substance?.biologicalGroup;
	const ratio = larger(meanRatio, shortRatio);
	const particle = PARTICLE_FORMS.includes(fact.form);
	return {
		name: fact.name,
		substance,
		form: fact.form,
		particle,
		gas: !particle || (fact.form === 'mist' && evaporates(substance)),
		concentration,
		summary,
		ppm,
		peakPpm,
		limit: lowered,
		limitSource: fact.limit
			? 'entered in the plan'
			: `${facts.ruleSet === 'us' ? 'US' : 'UK'} limit of the library${lowered === limit ? '' : `, lowered for a shift of ${facts.longShiftHours} h`}`,
		shortLimit: short,
		shortLimitSource: listedLimit(substance, facts.ruleSet)?.short
			? 'short-term limit of the library'
			: `${SHORT_TERM_MULTIPLE} × the 8-hour limit, as no short-term limit is listed`,
		meanRatio,
		shortRatio,
		ratio: group ? BIOLOGICAL_FACTOR[facts.ruleSet][group] : ratio,
		idlh,
		idlhRatio: over(peak, idlh),
		lelRatio: lel && peakPpm !== undefined ? peakPpm / (lel * 10_000) : undefined,
		boilingPointC: fact.boilingPointC ?? substance?.boilingPointC,
		organic: substance?.organic ?? fact.form === 'vapour',
		warning: fact.warning ?? substance?.warning ?? 'none',
		organs: substance?.organs ?? []
	};
}

/** The single value that counts: entered, or the upper limit of several measurements. */
function concentrationOf(fact: ContaminantFact, at: (field: string) => string) {
	const set = fact.measurements;
	if (!set || set.values.length === 0) return { concentration: fact.concentration };
	try {
		const summary = summariseExposure(set.values);
		// Never below the highest that was measured.
		const value = Math.max(summary.upperLimit95, summary.highest);
		return { concentration: { value, unit: set.unit }, summary };
	} catch (error) {
		if (error instanceof InputError)
			throw new InputError(at(`measurements.${error.path}`), `${fact.name}: ${error.message}`);
		throw error;
	}
}

/**
 * The short-term limit: the listed one, or three times the 8-hour one. An entered limit puts the listed
 * short-term one out of force unless a peak was measured against it.
 */
function shortLimitOf(
	fact: ContaminantFact,
	substance: Substance | undefined,
	ruleSet: HazardFacts['ruleSet'],
	limit: Concentration | undefined
): Concentration | undefined {
	const listed = listedLimit(substance, ruleSet);
	if (listed?.short !== undefined && (!fact.limit || fact.peak))
		return { value: listed.short, unit: listed.unit };
	return limit && { value: limit.value * SHORT_TERM_MULTIPLE, unit: limit.unit };
}

/**
 * The 8-hour limit lowered for a long shift by 8/h · (24 − h)/16; short-term and ceiling values stay.
 * Published: Brief & Scala, AIHA J. 36 (1975) 467; from memory.
 */
function longShift(
	limit: Concentration | undefined,
	substance: Substance | undefined,
	facts: Around
): Concentration | undefined {
	const hours = facts.longShiftHours;
	const mean = listedLimit(substance, facts.ruleSet)?.twa !== undefined || !substance;
	if (!limit || !hours || hours <= 8 || !mean) return limit;
	if (hours >= 24)
		throw new InputError('longShiftHours', 'A shift is shorter than 24 hours for this correction.');
	return { value: limit.value * briefScalaFactor(hours), unit: limit.unit };
}

/** Brief & Scala's reduction factor for a shift of so many hours, 1 up to eight. */
export const briefScalaFactor = (hours: number): number =>
	hours <= 8 ? 1 : (8 / hours) * ((24 - hours) / 16);

type Convert = {
	(amount: Concentration, unit: ConcentrationUnit): number;
	possible: (from: ConcentrationUnit, to: ConcentrationUnit) => boolean;
};

function converter(
	fact: ContaminantFact,
	substance: Substance | undefined,
	facts: Around,
	at: (field: string) => string
): Convert {
	const molarMass = fact.molarMassGPerMol ?? substance?.molarMassGPerMol;
	const state = {
		temperatureC: facts.temperatureC,
		pressureKpa: pressureAtAltitudeKpa(facts.altitudeFt)
	};
	const possible = (from: ConcentrationUnit, to: ConcentrationUnit) =>
		from === to || (from !== 'f/cm3' && to !== 'f/cm3' && Boolean(molarMass));
	const convert = (amount: Concentration, unit: ConcentrationUnit): number => {
		if (amount.unit === unit) return amount.value;
		if (!possible(amount.unit, unit) || !molarMass)
			throw new InputError(
				at('concentration.unit'),
				`${fact.name}: entered in ${written(amount.unit)}, its limit is in ${written(unit)}, and ${
					amount.unit === 'f/cm3' || unit === 'f/cm3'
						? 'fibres are counted, not weighed'
						: 'without a molar mass the two cannot be compared'
				}.`
			);
		return unit === 'ppm'
			? mgPerM3ToPpm(amount.value, molarMass, state)
			: ppmToMgPerM3(amount.value, molarMass, state);
	};
	return Object.assign(convert, { possible });
}

/** The higher of mean and peak, in the unit of the mean. */
function higher(
	mean: Concentration | null,
	peak: Concentration | null,
	convert: Convert
): Concentration | null {
	if (!mean || !peak) return peak ?? mean;
	return convert(peak, mean.unit) > mean.value ? peak : mean;
}

const evaporates = (substance: Substance | undefined) =>
	substance?.en !== undefined || substance?.us !== undefined;

const larger = (a: number | undefined, b: number | undefined): number | undefined =>
	a === undefined ? b : b === undefined ? a : Math.max(a, b);

/** A vapour of something that is a dust, or the other way round. */
function checkForm(fact: ContaminantFact, substance: Substance | undefined, path: string): void {
	if (!substance || substance.form === fact.form) return;
	const particle = PARTICLE_FORMS.includes(fact.form);
	const wrong = (why: string): never => {
		throw new InputError(path, `${substance.name} as ${fact.form}: ${why}`);
	};
	const gas = substance.form === 'gas';
	if (gas && particle)
		wrong('it is a gas at any temperature of work; a particle filter lets it through.');
	if (gas && fact.form === 'vapour') return;
	if (substance.form === 'vapour' && particle && fact.form !== 'mist')
		wrong('it evaporates; enter it as vapour, or as mist where it is sprayed.');
	if (PARTICLE_FORMS.includes(substance.form) && !particle && substance.boilingPointC === undefined)
		wrong(`it gives no vapour at the temperatures of work; enter it as ${substance.form}.`);
	if (fact.form === 'biological' || substance.form === 'biological')
		wrong('a biological agent is entered from the library as such.');
}

function checkAmount(amount: Concentration, path: string, name: string): void {
	if (!Number.isFinite(amount.value) || amount.value < 0)
		throw new InputError(path, `${name}: a concentration cannot be below zero.`);
	if (amount.unit === 'mg/m3' && amount.value > 1e7)
		throw new InputError(path, `${name}: more than 10 kg/m³ is no air any more. Check the unit.`);
}
