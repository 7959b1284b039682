import { InputError } from '../verdict.ts';
import { MMHG_PER_ATM, STANDARD_ATMOSPHERE_KPA } from './concentration.ts';

/** Published: exact by definition of the international foot. */
const METRES_PER_FOOT = 0.3048;
const LOWEST_FT = -1500;
const HIGHEST_FT = 30_000;
/** Pressure of water vapour in the lungs at 37 °C. Published: any physiology text; from memory. */
export const LUNG_WATER_MMHG = 47;
const MMHG_PER_KPA = MMHG_PER_ATM / STANDARD_ATMOSPHERE_KPA;

/**
 * Air pressure of the standard atmosphere at an altitude, kPa.
 * Published: ISO 2533, standard atmosphere, troposphere; from memory.
 * @throws InputError below −1,500 or above 30,000 ft.
 */
export function pressureAtAltitudeKpa(altitudeFt: number): number {
	if (!(altitudeFt >= LOWEST_FT && altitudeFt <= HIGHEST_FT))
		throw new InputError('altitudeFt', 'The altitude lies between −1,500 and 30,000 ft.');
	if (altitudeFt === 0) return STANDARD_ATMOSPHERE_KPA;
	return STANDARD_ATMOSPHERE_KPA * (1 - 2.25577e-5 * altitudeFt * METRES_PER_FOOT) ** 5.25588;
}

/** Partial pressure of oxygen in mmHg: of the ambient air, and of the moist air in the windpipe. */
export function oxygenPressureMmHg(
	oxygenPercent: number,
	altitudeFt: number
): { ambient: number; moist: number } {
	const total = pressureAtAltitudeKpa(altitudeFt) * MMHG_PER_KPA;
	const fraction = oxygenPercent / 100;
	return { ambient: fraction * total, moist: fraction * (total - LUNG_WATER_MMHG) };
}
