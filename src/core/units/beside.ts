import type { ShownPressure, ShownTemperature } from '../site/choices.ts';
import { readableNumber } from './number.ts';
import { PRESSURE_UNITS } from './pressure.ts';

/** Figures of MPa that a gauge can be read to. */
const MPA_DIGITS = 2;

/**
 * A pressure in the unit that a site reads beside bar, as it stands beside it; '' where the site reads bar alone. Only
 * ever beside: what is kept and judged is bar.
 */
export function besidePressure(bar: number, unit: ShownPressure): string {
	if (unit === 'bar' || !Number.isFinite(bar)) return '';
	const value = bar / PRESSURE_UNITS[unit];
	return unit === 'psi'
		? `${readableNumber(Math.round(value), 6)} psi`
		: `${value.toFixed(MPA_DIGITS)} MPa`;
}

/** A temperature in the unit that a site reads beside °C; '' where it reads °C alone. */
export const besideTemperature = (celsius: number, unit: ShownTemperature): string =>
	unit === '°C' || !Number.isFinite(celsius) ? '' : `${Math.round(celsius * 1.8 + 32)} °F`;
