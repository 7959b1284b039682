import { commonPractice } from '../verdict.ts';

/** Gases that take the place of air and do little else: what counts is the oxygen that they leave. Common practice. */
export const SIMPLE_ASPHYXIANTS: ReadonlySet<string> = new Set([
	'nitrogen',
	'argon',
	'helium',
	'hydrogen',
	'methane',
	'propane',
	'n-butane',
	'lpg',
	'acetylene',
	'carbon-dioxide',
	'nitrous-oxide',
	'sulphur-hexafluoride',
	'r134a',
	'chlorodifluoromethane',
	'trichlorofluoromethane'
]);
export const ASPHYXIANT_ORIGIN = commonPractice('simple asphyxiants');

/** Less than this is a trace, which displaces a tenth of a percent of oxygen at most, ppm. Common practice. */
export const TRACE_PPM = 5000;

/** Oxygen of outdoor air, % by volume. Published: dry air; from memory. */
export const AIR_OXYGEN_PERCENT = 20.9;

/** An entered value that lies so far above what the readings leave contradicts them, % by volume. Common practice. */
export const OXYGEN_CONTRADICTS_PERCENT = 0.5;
