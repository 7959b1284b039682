import {
	AIR_TERMS,
	EQUATION_GAS_CONSTANT,
	REDUCING_DENSITY_MOL_PER_L,
	REDUCING_TEMPERATURE_K
} from '../data/air-equation.ts';
import { ZERO_CELSIUS_K } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';

/** A standard atmosphere, bar. Exact. */
export const ATMOSPHERE_BAR = 1.01325;
/** Temperature that litres of free air are counted at, °C. Common practice. */
export const FREE_AIR_C = 20;
const KPA_PER_BAR = 100;
/** Range in which cylinders are handled and the equation was checked. Site default. */
const RANGE = { fromK: 233, toK: 343.15 } as const;
export const MOST_BAR = 400;
/** Air at this density, mol/L, stands far above any pressure of the range. */
const DENSEST = 40;
const MOST_STEPS = 60;
const TOLERANCE = 1e-13;

/** Air at one temperature: the powers of the temperature are worked out once. */
export interface Isotherm {
	readonly kelvin: number;
	/** Coefficient of each term with its power of the temperature. */
	readonly terms: readonly { i: number; l: number; a: number }[];
}

/** The isotherm at a temperature in kelvin. */
export function isotherm(kelvin: number): Isotherm {
	const tau = REDUCING_TEMPERATURE_K / kelvin;
	return { kelvin, terms: AIR_TERMS.map(([i, j, l, n]) => ({ i, l, a: n * tau ** j })) };
}

/** Pressure in bar absolute and its slope over the density, at a density in mol/L. */
function pressureAndSlope(air: Isotherm, densityMolPerL: number): { bar: number; slope: number } {
	const delta = densityMolPerL / REDUCING_DENSITY_MOL_PER_L;
	let [sum, slope] = [0, 0];
	for (const { i, l, a } of air.terms) {
		const power = a * delta ** i;
		if (l === 0) {
			sum += power * i;
			slope += power * i * i;
			continue;
		}
		const lth = delta ** l;
		const fading = power * Math.exp(-lth);
		const step = i - l * lth;
		sum += fading * step;
		slope += fading * (step * step - l * l * lth);
	}
	const ideal = (EQUATION_GAS_CONSTANT * air.kelvin) / KPA_PER_BAR;
	return { bar: densityMolPerL * ideal * (1 + sum), slope: ideal * (1 + sum + slope) };
}

/** Pressure of air, bar absolute, at a density in mol/L. */
export const pressureAt = (air: Isotherm, densityMolPerL: number): number =>
	pressureAndSlope(air, densityMolPerL).bar;

/**
 * Density of air in mol/L at a pressure in bar absolute: Newton's method, kept between bounds that close in, so that
 * it cannot run away. Above the critical temperature pressure rises with density all the way.
 */
export function densityAt(air: Isotherm, barAbsolute: number): number {
	let [low, high] = [0, DENSEST];
	let density = (barAbsolute * KPA_PER_BAR) / (EQUATION_GAS_CONSTANT * air.kelvin);
	for (let step = 0; step < MOST_STEPS; step++) {
		const { bar, slope } = pressureAndSlope(air, density);
		const off = bar - barAbsolute;
		if (Math.abs(off) <= TOLERANCE * barAbsolute) break;
		if (off > 0) high = density;
		else low = density;
		const next = density - off / slope;
		density = next > low && next < high ? next : (low + high) / 2;
		if (high - low <= Number.EPSILON * density) break;
	}
	return density;
}

/** Compressibility factor at a density in mol/L. */
export const compressibilityAt = (air: Isotherm, densityMolPerL: number): number =>
	densityMolPerL === 0
		? 1
		: (pressureAt(air, densityMolPerL) * KPA_PER_BAR) /
			(densityMolPerL * EQUATION_GAS_CONSTANT * air.kelvin);

/** Where air is: what a gauge shows, in which surroundings. */
export interface AirCondition {
	/** As a gauge shows it. */
	pressureBar: number;
	temperatureC?: number | undefined;
	ambientBar?: number | undefined;
}

/** @throws InputError at the path on a temperature outside the range. */
export function isothermOf(temperatureC: number, path = 'temperatureC'): Isotherm {
	const kelvin = temperatureC + ZERO_CELSIUS_K;
	if (!(kelvin >= RANGE.fromK && kelvin <= RANGE.toK))
		throw new InputError(
			path,
			`${temperatureC} °C is outside −40 to 70 °C, for which air is computed here.`
		);
	return isotherm(kelvin);
}

/** @throws InputError at the path on a gauge pressure outside the range. */
export function absoluteBar(
	pressureBar: number,
	ambientBar = ATMOSPHERE_BAR,
	path = 'pressureBar'
) {
	if (!(ambientBar > 0 && ambientBar <= 50))
		throw new InputError('ambientBar', 'The surroundings have a pressure above 0, up to 50 bar.');
	if (!(pressureBar >= 0 && pressureBar <= MOST_BAR))
		throw new InputError(path, `${pressureBar} bar is outside 0 to ${MOST_BAR} bar.`);
	return pressureBar + ambientBar;
}

/**
 * Density in mol/L and compressibility factor of air behind a gauge.
 * @throws InputError at pressureBar, temperatureC or ambientBar outside the range
 */
export function airState({ pressureBar, temperatureC = FREE_AIR_C, ambientBar }: AirCondition) {
	const bar = absoluteBar(pressureBar, ambientBar);
	const air = isothermOf(temperatureC);
	const densityMolPerL = densityAt(air, bar);
	return { z: compressibilityAt(air, densityMolPerL), densityMolPerL };
}

/** Density of free air, mol/L: 1.01325 bar and 20 °C. */
export const FREE_AIR_MOL_PER_L = densityAt(isotherm(FREE_AIR_C + ZERO_CELSIUS_K), ATMOSPHERE_BAR);
