import { InputError } from '../verdict.ts';
import {
	absoluteBar,
	ATMOSPHERE_BAR,
	densityAt,
	FREE_AIR_C,
	FREE_AIR_MOL_PER_L,
	isothermOf
} from './air-state.ts';

/** Pressure at which the whistle of a set is expected, bar. Published: EN 137, 55 ± 5; from memory. */
export const WARNING_BAR = 55;
/** Consumption that sets are compared by, L/min. Common practice. */
export const NOMINAL_L_PER_MIN = 40;
/** What a wearer takes at work, L/min. Common practice. */
export const CONSUMPTIONS = [
	{ name: 'light', lPerMin: 30 },
	{ name: 'moderate', lPerMin: 40 },
	{ name: 'heavy', lPerMin: 60 },
	{ name: 'very heavy', lPerMin: 90 }
] as const;

/** More than any cylinder or bank of one holds, L. Above it, millilitres were likely typed. Common practice. */
const MOST_VOLUME_L = 500;

export interface ContentInput {
	waterVolumeL: number;
	/** How many cylinders. */
	count?: number | undefined;
	fromBar: number;
	/** Down to this; to the surroundings without it. */
	toBar?: number | undefined;
	temperatureC?: number | undefined;
	ambientBar?: number | undefined;
}

/** @throws InputError at the path on a water volume that no cylinder has. */
export function checkVolume(waterVolumeL: number, path = 'waterVolumeL'): void {
	if (!(waterVolumeL > 0))
		throw new InputError(path, 'A cylinder holds more than 0 litres of water.');
	if (waterVolumeL > MOST_VOLUME_L)
		throw new InputError(
			path,
			`${waterVolumeL} L is more than a cylinder holds. If this was in millilitres: ${waterVolumeL / 1000} L.`
		);
}

/**
 * Free litres (1.01325 bar, 20 °C) that a cylinder gives between two gauge pressures, and what pressure times volume
 * would say.
 * @throws InputError at waterVolumeL, count, fromBar, toBar, temperatureC, ambientBar
 */
export function cylinderContent(input: ContentInput): { freeLitres: number; idealLitres: number } {
	const { waterVolumeL, count = 1, fromBar, toBar = 0, temperatureC = FREE_AIR_C } = input;
	checkVolume(waterVolumeL);
	if (!Number.isInteger(count) || count < 1)
		throw new InputError('count', 'A whole number of cylinders, one at least.');
	const from = absoluteBar(fromBar, input.ambientBar, 'fromBar');
	const to = absoluteBar(toBar, input.ambientBar, 'toBar');
	if (to > from)
		throw new InputError('toBar', `${toBar} bar is above the ${fromBar} bar that it starts from.`);
	const air = isothermOf(temperatureC);
	const volume = waterVolumeL * count;
	return {
		freeLitres: (volume * (densityAt(air, from) - densityAt(air, to))) / FREE_AIR_MOL_PER_L,
		idealLitres: volume * (fromBar - toBar)
	};
}

export interface DurationInput extends Omit<ContentInput, 'fromBar' | 'toBar'> {
	startBar: number;
	warningBar?: number | undefined;
	consumptionLPerMin?: number | undefined;
}

/**
 * Minutes to the warning, from the warning to empty, and in all. Consumption is at the pressure of the surroundings:
 * under more of it a breath takes more free air.
 * @throws InputError at the field at fault
 */
export function cylinderDuration(input: DurationInput) {
	const { startBar, warningBar = WARNING_BAR, consumptionLPerMin = NOMINAL_L_PER_MIN } = input;
	if (!(consumptionLPerMin > 0))
		throw new InputError('consumptionLPerMin', 'A consumption above 0 L/min.');
	if (startBar < warningBar)
		throw new InputError(
			'startBar',
			`${startBar} bar is below the warning at ${warningBar} bar: not to be entered with.`
		);
	const { waterVolumeL, count, temperatureC, ambientBar = ATMOSPHERE_BAR } = input;
	const cylinder = { waterVolumeL, count, temperatureC, ambientBar };
	const freePerMin = (consumptionLPerMin * ambientBar) / ATMOSPHERE_BAR;
	const minutes = (fromBar: number, toBar: number) =>
		cylinderContent({ ...cylinder, fromBar, toBar }).freeLitres / freePerMin;
	const minutesToWarning = minutes(startBar, warningBar);
	const minutesReserve = minutes(warningBar, 0);
	return { minutesToWarning, minutesReserve, minutesTotal: minutesToWarning + minutesReserve };
}

/** A cylinder in use: pressures and how long it took. */
export interface UseEntry {
	waterVolumeL: number;
	startBar: number;
	endBar: number;
	minutes: number;
	temperatureC?: number | undefined;
}

/** Free litres a minute that a use came to. @throws InputError at minutes or the pressures */
export function consumptionOf(use: UseEntry): number {
	if (!(use.minutes > 0)) throw new InputError('minutes', 'A use takes more than 0 minutes.');
	const { waterVolumeL, startBar, endBar, temperatureC } = use;
	const { freeLitres } = cylinderContent({
		waterVolumeL,
		fromBar: startBar,
		toBar: endBar,
		temperatureC
	});
	return freeLitres / use.minutes;
}
