import { massOf } from '../data/substances.ts';
import type { ExposureLimit, Substance, SubstanceField } from '../data/substance.ts';
import { LOW_BOILER_C } from '../filters/service-life.ts';
import { antoineMmHg, saturationMmHg } from '../filters/vapour-pressure.ts';
import { MMHG_PER_ATM, type ConcentrationUnit } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';

/** How far two statements of the same thing may lie apart before it is said. Common practice. */
const ANTOINE_BOILING_TOLERANCE = 0.04;
const ANTOINE_PRESSURE_TOLERANCE = 0.2;
const MASS_TOLERANCE_G = 0.5;

/** Whether the check digit of a CAS number holds. Published: CAS Registry. */
export function casHolds(cas: string): boolean {
	if (!/^\d{2,7}-\d{2}-\d$/.test(cas)) return false;
	const digits = cas.replaceAll('-', '');
	const sum = [...digits.slice(0, -1)].reverse().reduce((s, d, i) => s + Number(d) * (i + 1), 0);
	return sum % 10 === Number(digits.at(-1));
}

/** A statement of a substance that does not agree with another of the same substance. */
export interface Disagreement {
	field: SubstanceField | 'cas' | 'form';
	message: string;
}

/**
 * What in a substance contradicts itself: check digit, formula and mass, Antoine constants, order of the limits,
 * filter type and boiling point. Empty when all agree. Shipped data and a site's own are held to the same.
 */
export function disagreements(s: Substance): Disagreement[] {
	const found: Disagreement[] = [];
	const say = (field: Disagreement['field'], message: string) => found.push({ field, message });
	if (s.cas && !casHolds(s.cas)) say('cas', `The check digit of CAS ${s.cas} does not fit.`);
	if (s.formula && s.molarMassGPerMol !== undefined) {
		const mass = massOf(s.formula);
		if (Math.abs(mass - s.molarMassGPerMol) > MASS_TOLERANCE_G)
			say('molarMassGPerMol', `${s.formula} weighs ${mass} g/mol, not ${s.molarMassGPerMol}.`);
	}
	antoineFaults(s, say);
	for (const [list, field] of [
		['us', 'limitUs'],
		['uk', 'limitUk']
	] as const)
		limitFaults(s, s.limits[list], field, say);
	limitFaults(s, s.rel, 'rel', say);
	const boils = s.boilingPointC;
	if (s.en === 'A' && boils !== undefined && boils <= LOW_BOILER_C)
		say('en', `Type A is for boiling points above 65 °C; this boils at ${boils} °C: AX.`);
	if (s.en === 'AX' && boils !== undefined && boils > LOW_BOILER_C)
		say('en', `Type AX is for boiling points up to 65 °C; this boils at ${boils} °C: A.`);
	return found;
}

type Say = (field: Disagreement['field'], message: string) => void;

function antoineFaults(s: Substance, say: Say): void {
	if (!s.antoine) return;
	if (s.boilingPointC !== undefined) {
		const there = antoineMmHg(s.antoine, s.boilingPointC);
		if (Math.abs(there / MMHG_PER_ATM - 1) > ANTOINE_BOILING_TOLERANCE)
			say(
				'antoine',
				`At the boiling point of ${s.boilingPointC} °C the constants give ${Math.round(there)} mmHg, not 760.`
			);
	}
	if (s.vapourPressureMmHg !== undefined) {
		const there = saturationMmHg({ ...s, boilingPointC: 20 }, 20) ?? NaN;
		if (Math.abs(there / s.vapourPressureMmHg - 1) > ANTOINE_PRESSURE_TOLERANCE)
			say(
				'antoine',
				`At 20 °C the constants give ${there.toPrecision(3)} mmHg, not ${s.vapourPressureMmHg}.`
			);
	}
}

function limitFaults(
	s: Substance,
	limit: ExposureLimit | undefined,
	field: Disagreement['field'],
	say: Say
): void {
	if (!limit) return;
	const least = limit.twa ?? limit.short;
	if (limit.twa !== undefined && limit.short !== undefined && limit.short < limit.twa)
		say(field, `The short-term value of ${limit.short} lies below the mean of ${limit.twa}.`);
	if (s.idlh && s.idlh.unit === limit.unit && least !== undefined && s.idlh.value < least)
		say(
			field,
			`The limit of ${least} lies above the immediate danger value of ${s.idlh.value} ${limit.unit}.`
		);
}

/**
 * A substance of a site made whole: key from its name, molar mass from its formula where none is given.
 * @throws InputError by field on what cannot be; disagreements are for the person to weigh.
 */
export function ownSubstance(given: Omit<Substance, 'key'> & { key?: string }): Substance {
	const name = given.name.trim();
	if (!name) throw new InputError('name', 'A substance needs a name.');
	const key = given.key ?? keyOf(name);
	if (!key) throw new InputError('name', 'The name needs at least one letter or digit.');
	if (given.cas && !casHolds(given.cas))
		throw new InputError(
			'cas',
			`“${given.cas}” is no CAS number: its check digit does not fit. Look at the label again.`
		);
	const positive: [SubstanceField, number | undefined][] = [
		['molarMassGPerMol', given.molarMassGPerMol],
		['vapourPressureMmHg', given.vapourPressureMmHg],
		['liquidDensityGPerCm3', given.liquidDensityGPerCm3],
		['lelPercent', given.lelPercent],
		['odourThresholdPpm', given.odourThresholdPpm],
		['skinHarmPpm', given.skinHarmPpm],
		['idlh', given.idlh?.value],
		['limitUs', given.limits.us?.twa],
		['limitUs', given.limits.us?.short],
		['limitUk', given.limits.uk?.twa],
		['limitUk', given.limits.uk?.short],
		['rel', given.rel?.twa],
		['rel', given.rel?.short]
	];
	for (const [field, value] of positive)
		if (value !== undefined && !(value > 0 && Number.isFinite(value)))
			throw new InputError(field, `${FIELD_NAMES[field]} must be above zero.`);
	if (given.refractiveIndex !== undefined && !(given.refractiveIndex > 1))
		throw new InputError('refractiveIndex', 'A refractive index of a liquid lies above 1.');
	const mass = given.molarMassGPerMol ?? (given.formula ? massOfFormula(given.formula) : undefined);
	return { ...given, key, name, ...(mass === undefined ? {} : { molarMassGPerMol: mass }) };
}

function massOfFormula(formula: string): number {
	if (!/^([A-Z][a-z]?\d*)+$/.test(formula))
		throw new InputError('formula', `“${formula}” is no plain formula such as C7H8.`);
	try {
		return massOf(formula);
	} catch {
		throw new InputError(
			'formula',
			`“${formula}” holds an element that Grevan has no weight for. Enter the molar mass instead.`
		);
	}
}

/** The unit that the limits of a substance are written in, where nothing else is said. */
export const limitUnitOf = (
	s: Pick<Substance, 'limits' | 'rel' | 'idlh' | 'form'> & { unit?: ConcentrationUnit }
): ConcentrationUnit =>
	s.unit ??
	s.limits.uk?.unit ??
	s.limits.us?.unit ??
	s.rel?.unit ??
	s.idlh?.unit ??
	(s.form === 'gas' || s.form === 'vapour' ? 'ppm' : 'mg/m3');

/** A key that a name gives: lower case, digits and hyphens. */
export const keyOf = (name: string): string =>
	name
		.normalize('NFKD')
		.replaceAll(/\p{M}/gu, '')
		.toLowerCase()
		.replaceAll(/[^a-z0-9]+/g, '-')
		.replaceAll(/^-|-$/g, '')
		.slice(0, 60);

/** Fields as people read them. */
export const FIELD_NAMES: Record<SubstanceField, string> = {
	molarMassGPerMol: 'Molar mass',
	formula: 'Formula',
	boilingPointC: 'Boiling point',
	vapourPressureMmHg: 'Vapour pressure at 20 °C',
	antoine: 'Antoine constants',
	liquidDensityGPerCm3: 'Liquid density',
	refractiveIndex: 'Refractive index',
	limitUs: 'US limit',
	limitUk: 'UK limit',
	rel: 'US recommended limit',
	idlh: 'Immediate danger',
	lelPercent: 'Lower explosive limit',
	odourThresholdPpm: 'Odour threshold',
	warning: 'Warning properties',
	skin: 'Skin notation',
	skinHarmPpm: 'Vapour harms skin from',
	en: 'Filter type, EN 14387',
	us: 'Cartridge, 42 CFR 84',
	noFilter: 'Why no filter',
	organs: 'Target organs',
	harms: 'Kinds of harm',
	biologicalGroup: 'Biological group'
};
