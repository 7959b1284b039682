import { InputError } from '../verdict.ts';

/** Molar gas constant, J/(mol·K). Published: CODATA 2018, exact; from memory. */
export const GAS_CONSTANT = 8.314462618;
/** Standard atmosphere in kPa. Published: ISO 2533; from memory. */
export const STANDARD_ATMOSPHERE_KPA = 101.325;
/** Millimetres of mercury in a standard atmosphere. Published: NIST SP 811, to six figures; from memory. */
export const MMHG_PER_ATM = 760;
/** 0 °C in kelvin. */
export const ZERO_CELSIUS_K = 273.15;

/** Fibres are counted (f/cm3) and convert into nothing else. */
export type ConcentrationUnit = (typeof CONCENTRATION_UNITS)[number];
export const CONCENTRATION_UNITS = ['ppm', 'mg/m3', 'f/cm3'] as const;

/** A concentration as it was entered. */
export interface Concentration {
	value: number;
	unit: ConcentrationUnit;
}

/** Temperature and pressure that a conversion is made at. */
export interface GasState {
	temperatureC?: number;
	pressureKpa?: number;
}

/**
 * Volume of one mole of ideal gas, L/mol. 24.465 at 25 °C and 1 atm, 24.055 at 20 °C.
 * @throws InputError when temperature or pressure is not physical.
 */
export function molarVolumeLPerMol(state: GasState = {}): number {
	const { temperatureC = 20, pressureKpa = STANDARD_ATMOSPHERE_KPA } = state;
	if (!(temperatureC > -ZERO_CELSIUS_K))
		throw new InputError('temperatureC', 'The temperature lies below absolute zero.');
	if (!(pressureKpa > 0)) throw new InputError('pressureKpa', 'The pressure must be above 0 kPa.');
	return (GAS_CONSTANT * (temperatureC + ZERO_CELSIUS_K)) / pressureKpa;
}

/** mg/m³ = ppm · M · P / (R · T). */
export function ppmToMgPerM3(ppm: number, molarMassGPerMol: number, state?: GasState): number {
	return (ppm * molarMassGPerMol) / molarVolumeLPerMol(state);
}

/** ppm = mg/m³ · R · T / (M · P). */
export function mgPerM3ToPpm(mgPerM3: number, molarMassGPerMol: number, state?: GasState): number {
	return (mgPerM3 * molarVolumeLPerMol(state)) / molarMassGPerMol;
}

/**
 * A concentration in both units.
 * @throws InputError on a negative value, more than 1,000,000 ppm, or a molar mass that is not above zero.
 */
export function inBothUnits(
	concentration: Concentration,
	molarMassGPerMol: number,
	state?: GasState
): { ppm: number; mgPerM3: number } {
	const { value, unit } = concentration;
	if (!(molarMassGPerMol > 0))
		throw new InputError('molarMassGPerMol', 'The molar mass must be above 0 g/mol.');
	if (!Number.isFinite(value) || value < 0)
		throw new InputError('value', 'A concentration cannot be below zero.');
	const ppm = unit === 'ppm' ? value : mgPerM3ToPpm(value, molarMassGPerMol, state);
	if (ppm > 1e6)
		throw new InputError(
			'value',
			'More than 1,000,000 ppm: more than all of the air. Check the unit.'
		);
	return {
		ppm,
		mgPerM3: unit === 'mg/m3' ? value : ppmToMgPerM3(value, molarMassGPerMol, state)
	};
}
