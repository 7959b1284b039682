import { molarVolumeLPerMol } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';
import { ATMOSPHERE_BAR, FREE_AIR_C } from './air-state.ts';

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

/** Temperature at which water vapour of a pressure in Pa is saturated; pressure rises with it all the way. */
function dewPointC(pa: number): number {
	let [low, high] = [COLDEST_C - 40, WARMEST_C + 60];
	for (let i = 0; i < HALVINGS; i++) {
		const middle = (low + high) / 2;
		if (saturationPa(middle) < pa) low = middle;
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
 * Moisture of compressed air from its content or from its dew point at pressure. Water vapour is taken as an ideal
 * gas: in a full cylinder air can hold more than this says before water falls out.
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
		share = saturationPa(dew) / (bar * PA_PER_BAR);
	} else {
		if (!(given.mgPerM3 > 0))
			throw new InputError('mgPerM3', 'Air without any water has no dew point.');
		share = given.mgPerM3 / mgPerMolFraction;
	}
	const atAtmosphere = share * ATMOSPHERE_BAR * PA_PER_BAR;
	if (share >= 1 || atAtmosphere > saturationPa(WARMEST_C + 50))
		throw new InputError(
			'dewPointC' in given ? 'dewPointC' : 'mgPerM3',
			'That is more water than air can carry.'
		);
	return {
		mgPerM3: share * mgPerMolFraction,
		atPressureC: 'dewPointC' in given ? given.dewPointC : dewPointC(share * bar * PA_PER_BAR),
		atAtmosphereC: dewPointC(atAtmosphere)
	};
}
