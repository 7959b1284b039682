import { GAS_CONSTANT, molarVolumeLPerMol, ZERO_CELSIUS_K } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';
import { ATMOSPHERE_BAR, compressibilityAt, densityAt, FREE_AIR_C, isotherm } from './air-state.ts';

/** Molar mass of water, g/mol. Published: IUPAC atomic weights; from memory. */
const WATER_G_PER_MOL = 18.015;
const PA_PER_BAR = 1e5;
/** Range of dew points that the formulas were fitted for, °C. Published: Buck 1996; from memory. */
const COLDEST_C = -80;
const WARMEST_C = 50;
const HALVINGS = 60;

/**
 * Pressure of saturated water vapour, Pa, over ice below 0 °C and over water above.
 * Published: Buck, J. Appl. Meteorol. 20 (1981) 1527, as revised 1996; from memory.
 */
export function saturationPa(temperatureC: number): number {
	return temperatureC < 0
		? 611.15 * Math.exp((23.036 - temperatureC / 333.7) * (temperatureC / (279.82 + temperatureC)))
		: 611.21 * Math.exp((18.678 - temperatureC / 234.5) * (temperatureC / (257.14 + temperatureC)));
}

/**
 * Molar volume of water, m³/mol. Published: IAPWS; from memory. That of ice, a tenth larger, would add 2 % at 300 bar
 * and a step at 0 °C, where pressure moves the freezing point.
 */
const WATER_M3_PER_MOL = 18.02e-6;

/**
 * How much more water saturated air holds at a pressure than the vapour pressure says, because the molecules of
 * compressed air attract those of water.
 *
 * Fugacity of water in air by its virial coefficients with air (published: Hyland & Wexler, ASHRAE Trans. 89 (1983)
 * 500; coefficients from memory) at the real density of the air, with the Poynting factor of the condensed water.
 * Checked against Wylie & Fisher 1996 and Hyland & Wexler: 1.13 at 40 bar, about 2.35 at 300 bar, 20 °C.
 * @param bar absolute
 */
export function enhancementFactor(temperatureC: number, bar: number): number {
	const kelvin = temperatureC + ZERO_CELSIUS_K;
	const air = isotherm(kelvin);
	const density = densityAt(air, bar) * 1000;
	const z = compressibilityAt(air, density / 1000);
	const t = 1 / kelvin;
	const withAirM3 = (32.366097 - 14113.8 * t - 1244535 * t ** 2 - 2348789000 * t ** 4) * 1e-6;
	const withTwoM6 =
		(0.482737 + 105.678 * t - 65639.4 * t ** 2 + 29444200 * t ** 3 - 3193170000 * t ** 4) * 1e-9;
	const logFugacity = 2 * withAirM3 * density + 1.5 * withTwoM6 * density ** 2 - Math.log(z);
	const logPoynting =
		(WATER_M3_PER_MOL * (bar * PA_PER_BAR - saturationPa(temperatureC))) / (GAS_CONSTANT * kelvin);
	return Math.exp(logPoynting - logFugacity);
}

/**
 * Water vapour over saturated air of a pressure, as a mole fraction. The tables of moist air at one atmosphere leave
 * its own factor of 1.004 out, so that it is counted from there.
 */
const saturatedShare = (temperatureC: number, bar: number): number =>
	((enhancementFactor(temperatureC, bar) / enhancementFactor(temperatureC, ATMOSPHERE_BAR)) *
		saturationPa(temperatureC)) /
	(bar * PA_PER_BAR);

/** Temperature at which air of a pressure is saturated with a share of water; the share rises with it all the way. */
function dewPointC(share: number, bar: number): number {
	let [low, high] = [COLDEST_C - 40, WARMEST_C + 60];
	for (let i = 0; i < HALVINGS; i++) {
		const middle = (low + high) / 2;
		if (saturatedShare(middle, bar) < share) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}

export interface Moisture {
	/** Water in a cubic metre of free air (1.01325 bar, 20 °C). */
	mgPerM3: number;
	/** Dew point at the pressure of the air. */
	atPressureC: number;
	/** Dew point once it is let down to a standard atmosphere. */
	atAtmosphereC: number;
}

/**
 * Moisture of compressed air from its content or from its dew point at pressure, with the enhancement factor of
 * compressed air.
 * @throws InputError at mgPerM3, dewPointC or pressureBar
 */
export function moisture(
	given: { mgPerM3: number } | { dewPointC: number },
	pressureBar: number
): Moisture {
	if (!(pressureBar >= 0 && pressureBar <= 400))
		throw new InputError('pressureBar', `${pressureBar} bar is outside 0 to 400 bar.`);
	const bar = pressureBar + ATMOSPHERE_BAR;
	const mgPerMolFraction =
		(WATER_G_PER_MOL / molarVolumeLPerMol({ temperatureC: FREE_AIR_C })) * 1e6;
	let share: number;
	if ('dewPointC' in given) {
		const { dewPointC: dew } = given;
		if (!(dew >= COLDEST_C && dew <= WARMEST_C))
			throw new InputError('dewPointC', `${dew} °C is outside ${COLDEST_C} to ${WARMEST_C} °C.`);
		share = saturatedShare(dew, bar);
	} else {
		if (!(given.mgPerM3 > 0))
			throw new InputError('mgPerM3', 'Air without any water has no dew point.');
		share = given.mgPerM3 / mgPerMolFraction;
	}
	if (share >= 1 || share > saturatedShare(WARMEST_C + 50, ATMOSPHERE_BAR))
		throw new InputError(
			'dewPointC' in given ? 'dewPointC' : 'mgPerM3',
			'That is more water than air can carry.'
		);
	return {
		mgPerM3: share * mgPerMolFraction,
		atPressureC: 'dewPointC' in given ? given.dewPointC : dewPointC(share, bar),
		atAtmosphereC: dewPointC(share, ATMOSPHERE_BAR)
	};
}
