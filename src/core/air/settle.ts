import { InputError } from '../verdict.ts';
import {
	absoluteBar,
	ATMOSPHERE_BAR,
	densityAt,
	isothermOf,
	MOST_BAR,
	pressureAt,
	type AirCondition
} from './air-state.ts';

/** Temperature that the rated pressure of a cylinder is stated at, °C. Published: EN ISO 13769 and the gas codes; from memory. */
export const RATED_C = 15;
/** Temperature that the developed pressure is stated at, °C. Published: EN ISO 11114 and the filling codes; from memory. */
export const DEVELOPED_C = 65;

/** There and back carries rounding in the last bits; it must not decide. */
const ROUNDING = 1e-6;

/**
 * Gauge pressure of a closed cylinder at another temperature: the density stays. The stretch of the cylinder is left
 * out; it makes the change a little smaller.
 * @throws InputError at pressureBar, temperatureC or finalTemperatureC
 */
export function settledPressureBar(
	from: AirCondition & { temperatureC: number },
	finalTemperatureC: number
): number {
	const ambient = from.ambientBar ?? ATMOSPHERE_BAR;
	const density = densityAt(
		isothermOf(from.temperatureC),
		absoluteBar(from.pressureBar, from.ambientBar)
	);
	const settled = pressureAt(isothermOf(finalTemperatureC, 'finalTemperatureC'), density) - ambient;
	if (settled > MOST_BAR + ROUNDING)
		throw new InputError(
			'finalTemperatureC',
			`At ${finalTemperatureC} °C it would stand at ${Math.round(settled)} bar, beyond the ${MOST_BAR} bar that air is computed for here.`
		);
	return settled;
}

export interface FillTarget {
	/** Stop at this gauge pressure now. */
	stopAtBar: number;
	/** What it settles at when it has cooled to 15 °C. */
	settledBar: number;
	/** What it would develop at 65 °C. */
	developedBar: number;
	/** What decided: the rated pressure when cool, or the most that the cylinder may develop. */
	limitedBy: 'rated' | 'maximum';
}

/**
 * Gauge pressure to fill to now, so that the cylinder is at its rated pressure when cool and never develops more than
 * its maximum at 65 °C.
 * @throws InputError at ratedBar, maximumBar or temperatureC
 */
export function fillTarget(ratedBar: number, maximumBar: number, temperatureC: number): FillTarget {
	if (maximumBar < ratedBar)
		throw new InputError('maximumBar', 'The maximum lies at or above the rated pressure.');
	const rated = densityAt(isothermOf(RATED_C), absoluteBar(ratedBar, undefined, 'ratedBar'));
	// The maximum of a 300 bar cylinder lies above what gauges show here; only the equation has to hold there.
	if (!(maximumBar <= 500)) throw new InputError('maximumBar', 'At most 500 bar.');
	const most = densityAt(isothermOf(DEVELOPED_C), maximumBar + ATMOSPHERE_BAR);
	const density = Math.min(rated, most);
	const at = (celsius: number) => pressureAt(isothermOf(celsius), density) - ATMOSPHERE_BAR;
	return {
		stopAtBar: at(temperatureC),
		settledBar: at(RATED_C),
		developedBar: at(DEVELOPED_C),
		limitedBy: rated <= most ? 'rated' : 'maximum'
	};
}
