import type { Substance } from '../data/substance.ts';
import { ZERO_CELSIUS_K } from '../units/concentration.ts';

const REFERENCE_C = 20;
const MMHG_PER_ATM = 760;

/**
 * Saturation vapour pressure of a substance in mmHg at a temperature: the Antoine equation where the library
 * has it, else Clausius-Clapeyron through the tabulated pressure at 20 °C and the boiling point (published:
 * any physical chemistry text; an estimate). Undefined when the library holds too little.
 */
export function saturationMmHg(
	substance: Pick<Substance, 'antoine' | 'vapourPressureMmHg' | 'boilingPointC'>,
	temperatureC: number
): number | undefined {
	const { antoine, vapourPressureMmHg, boilingPointC } = substance;
	if (antoine) return 10 ** (antoine.a - antoine.b / (antoine.c + temperatureC));
	if (vapourPressureMmHg === undefined) return undefined;
	if (boilingPointC === undefined || Math.abs(boilingPointC - REFERENCE_C) < 1)
		return temperatureC === REFERENCE_C ? vapourPressureMmHg : undefined;
	const inverse = (celsius: number) => 1 / (celsius + ZERO_CELSIUS_K);
	const slope =
		Math.log(MMHG_PER_ATM / vapourPressureMmHg) / (inverse(REFERENCE_C) - inverse(boilingPointC));
	return vapourPressureMmHg * Math.exp(slope * (inverse(REFERENCE_C) - inverse(temperatureC)));
}

/** Highest concentration the vapour can reach at a temperature and 1 atm, ppm; undefined when not known. */
export function saturationPpm(
	substance: Parameters<typeof saturationMmHg>[0],
	temperatureC: number
): number | undefined {
	const pressure = saturationMmHg(substance, temperatureC);
	return pressure === undefined ? undefined : Math.min(1e6, (pressure / MMHG_PER_ATM) * 1e6);
}
