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
	PARTICLE_FORMS,
	written,
	type Contaminant,
	type ContaminantFact,
	type HazardFacts
} from './facts.ts';
import { type Convert, limitsInForce } from './limits.ts';

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
	for (const [amount, field] of [
		[concentration, 'concentration'],
		[fact.peak, 'peak']
	] as const)
		if (amount) checkAmount(amount, at(field), fact.name);
	if (fact.limit && !(fact.limit.value > 0))
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
	const limits = limitsInForce(fact, substance, facts, convert);
	const biological = Boolean(substance?.biologicalGroup);
	const meanRatio = biological ? undefined : over(concentration, limits.limit);
	const shortRatio = biological ? undefined : over(peak, limits.shortLimit);
	const lel = fact.lelPercent ?? substance?.lelPercent;
	const particle = PARTICLE_FORMS.includes(fact.form);
	return {
		name: fact.name,
		substance,
		form: fact.form,
		particle,
		gas: !particle || evaporates(substance),
		concentration,
		summary,
		ppm,
		peakPpm,
		...limits,
		meanRatio,
		shortRatio,
		ratio: larger(meanRatio, shortRatio),
		idlh,
		idlhRatio: over(peak, idlh),
		lelRatio: lel && peakPpm !== undefined ? peakPpm / (lel * 10_000) : undefined,
		boilingPointC: fact.boilingPointC ?? substance?.boilingPointC,
		organic: substance?.organic ?? fact.form === 'vapour',
		warning: warningOf(fact, substance, limits.limit, convert),
		organs: substance?.organs ?? [],
		harms: substance?.harms ?? [],
		biologicalTask: fact.biologicalTask ?? 'ordinary'
	};
}

/** Warning properties as they stand: what is smelt only above the limit in force warns poorly. */
function warningOf(
	fact: ContaminantFact,
	substance: Substance | undefined,
	limit: Concentration | undefined,
	convert: Convert
): Contaminant['warning'] {
	const stated = fact.warning ?? substance?.warning ?? 'none';
	const smelt = substance?.odourThresholdPpm;
	if (stated !== 'adequate' || smelt === undefined || !limit) return stated;
	if (!convert.possible('ppm', limit.unit)) return stated;
	return convert({ value: smelt, unit: 'ppm' }, limit.unit) > limit.value ? 'poor' : stated;
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
