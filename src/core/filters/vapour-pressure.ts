import type { Antoine, Substance } from '../data/substance.ts';
import { MMHG_PER_ATM, ZERO_CELSIUS_K } from '../units/concentration.ts';
import { InputError } from '../verdict.ts';

const REFERENCE_C = 20;
/** How far below and above the boiling point the tabulated constants are used. Common practice. */
const ANTOINE_BELOW_K = 190;
const ANTOINE_ABOVE_K = 60;

/**
 * Saturation vapour pressure of a substance in mmHg at a temperature: the Antoine equation where the library
 * has it, else Clausius-Clapeyron through the tabulated pressure at 20 °C and the boiling point (published:
 * any physical chemistry text; an estimate). Undefined when the library holds too little.
 * @throws InputError at temperatureC outside the range that the Antoine constants hold for.
 */
export function saturationMmHg(
	substance: Pick<Substance, 'antoine' | 'vapourPressureMmHg' | 'boilingPointC'> & {
		name?: string;
	},
	temperatureC: number
): number | undefined {
	const { antoine, vapourPressureMmHg, boilingPointC } = substance;
	if (antoine) {
		checkRange(antoine, boilingPointC, temperatureC, substance.name);
		return antoineMmHg(antoine, temperatureC);
	}
	if (vapourPressureMmHg === undefined) return undefined;
	if (boilingPointC === undefined || Math.abs(boilingPointC - REFERENCE_C) < 1)
		return temperatureC === REFERENCE_C ? vapourPressureMmHg : undefined;
	const inverse = (celsius: number) => 1 / (celsius + ZERO_CELSIUS_K);
	const slope =
		Math.log(MMHG_PER_ATM / vapourPressureMmHg) / (inverse(REFERENCE_C) - inverse(boilingPointC));
	return vapourPressureMmHg * Math.exp(slope * (inverse(REFERENCE_C) - inverse(temperatureC)));
}

/** The Antoine equation as it stands, in mmHg, whatever range its constants hold for. */
export const antoineMmHg = ({ a, b, c }: Antoine, temperatureC: number): number =>
	10 ** (a - b / (c + temperatureC));

function checkRange(
	antoine: Antoine,
	boilingPointC: number | undefined,
	temperatureC: number,
	name = 'This substance'
): void {
	const from = antoine.fromC ?? (boilingPointC ?? 0) - ANTOINE_BELOW_K;
	const to = antoine.toC ?? (boilingPointC ?? 0) + ANTOINE_ABOVE_K;
	if (temperatureC >= from && temperatureC <= to) return;
	throw new InputError(
		'temperatureC',
		`${name}: its vapour pressure is known from ${Math.round(from)} to ${Math.round(to)} °C only, and ${temperatureC} °C was entered.`
	);
}

/** Highest concentration the vapour can reach at a temperature and 1 atm, ppm; undefined when not known. */
export function saturationPpm(
	substance: Parameters<typeof saturationMmHg>[0],
	temperatureC: number
): number | undefined {
	const pressure = saturationMmHg(substance, temperatureC);
	return pressure === undefined ? undefined : Math.min(1e6, (pressure / MMHG_PER_ATM) * 1e6);
}
