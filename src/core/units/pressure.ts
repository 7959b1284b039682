import { InputError } from '../verdict.ts';

/** Bar in one of each unit. Published: SI and the international pound and inch; from memory. */
export const PRESSURE_UNITS = { bar: 1, psi: 0.0689476, MPa: 10, kPa: 0.01 } as const;
export type PressureUnit = keyof typeof PRESSURE_UNITS;

export interface EnteredPressure {
	bar: number;
	/** As it was typed, with its unit. */
	entered: string;
}

const FORM = /^(-?\d+(?:[.,]\d+)?)\s*([a-z]*)$/i;
/** More bar than any gauge here shows is likely another unit. */
const UNLIKELY_BAR = 450;

/**
 * A pressure as people type it: a number alone is bar; psi, MPa and kPa are named and converted.
 * @throws InputError at the path on anything else, and on a number alone that only makes sense as psi
 */
export function readPressure(text: string, path = 'pressureBar'): EnteredPressure {
	const found = FORM.exec(text.trim());
	const word = found?.[2]?.toLowerCase() || 'bar';
	const unit = (Object.keys(PRESSURE_UNITS) as PressureUnit[]).find(
		(one) => one.toLowerCase() === word
	);
	if (!found || !unit)
		throw new InputError(path, 'Write a pressure as 300, 300 bar, 4350 psi or 30 MPa.');
	const value = Number(found[1]?.replace(',', '.'));
	if (value < 0) throw new InputError(path, 'A gauge pressure cannot be below zero.');
	if (!found[2] && value > UNLIKELY_BAR)
		throw new InputError(
			path,
			`${value} bar is more than a gauge shows. If this was psi: write ${value} psi, which is ${(value * PRESSURE_UNITS.psi).toFixed(0)} bar.`
		);
	return { bar: value * PRESSURE_UNITS[unit], entered: `${found[1]} ${unit}` };
}
