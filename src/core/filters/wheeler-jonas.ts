import { MMHG_PER_ATM, molarVolumeLPerMol, ZERO_CELSIUS_K } from '../units/concentration.ts';

/** Sorbent bed of one filter. */
export interface Bed {
	carbonMassG: number;
	microporeVolumeCm3PerG: number;
	packedDensityGPerCm3: number;
	faceAreaCm2: number;
}

/**
 * Bed assumed where the maker states none.
 * Common practice: chosen to match the twin-cartridge tests (data/twin-cartridge-tests.ts).
 */
export const DEFAULT_BED: Bed = {
	carbonMassG: 30,
	microporeVolumeCm3PerG: 0.5,
	packedDensityGPerCm3: 0.44,
	faceAreaCm2: 40
};

/** The adsorbate at bed temperature. */
export interface Adsorbate {
	molarMassGPerMol: number;
	liquidDensityGPerCm3: number;
	refractiveIndex: number;
	saturationMmHg: number;
}

export interface BreakthroughInput {
	adsorbate: Adsorbate;
	concentrationPpm: number;
	/** Flow through one filter. */
	flowPerFilterLPerMin: number;
	temperatureC: number;
	/** Cx/C0, between 0 and 1. */
	breakthroughFraction: number;
	bed: Bed;
}

export interface Breakthrough {
	breakthroughMin: number;
	/** Equilibrium capacity We, g of vapour per g of carbon. */
	capacityGPerG: number;
	/** Overall adsorption rate coefficient kv. */
	rateConstantPerMin: number;
}

const AFFINITY = 3.56e-5;
/** Of the rate correlation. */
const RATE_A = 0.000825;
const RATE_B = 0.063;
const RATE_C = 0.0055;
/** cal/(mol·K), as the correlation was fitted with. */
const GAS_CONSTANT_CAL = 1.987;

/** The model holds from this breakthrough fraction up. Computed: below it the rate term changes sign. */
export const LEAST_FRACTION = 0.002;

const logOf = (fraction: number): number => Math.log((1 - fraction) / fraction);

/** ln((C0 − Cx)/Cx) from which on the time would grow again; for small molecules it lies above 0.002. */
const turningLog = (pe: number): number => (RATE_A * pe + RATE_B) / (2 * RATE_C);

/**
 * Concentration in ppm below which the capacity correlation falls faster than the concentration: less of a vapour
 * would break through sooner, which it never does.
 */
export function turningPpm(adsorbate: Adsorbate, temperatureC: number, bed: Bed): number {
	const k =
		AFFINITY *
		bed.microporeVolumeCm3PerG *
		polarisability(adsorbate) ** -1.8 *
		(GAS_CONSTANT_CAL * (temperatureC + ZERO_CELSIUS_K)) ** 2;
	return Math.exp(-1 / (2 * k)) * (adsorbate.saturationMmHg / MMHG_PER_ATM) * 1e6;
}

/** Molar electronic polarisability Pe, cm³/mol (Lorentz-Lorenz). */
export function polarisability(adsorbate: Adsorbate): number {
	const n2 = adsorbate.refractiveIndex ** 2;
	return ((n2 - 1) / (n2 + 2)) * (adsorbate.molarMassGPerMol / adsorbate.liquidDensityGPerCm3);
}

/**
 * Breakthrough time of a carbon filter for one organic vapour in dry air, by the Wheeler-Jonas equation
 *
 *     t = We·W/(C0·Q) − We·ρb/(kv·C0) · ln((C0 − Cx)/Cx)
 *
 * with the capacity and rate correlations of Wood (published: Wood, AIHA J. 55 (1994) 11-15; Wood & Stampfer,
 * Carbon 31 (1993) 195-200; equations from memory). Inputs must be positive, the fraction between 0 and 1.
 * A fraction below 0.002 is taken as that: further down the rate term changes sign, and the time would grow as the
 * criterion gets stricter.
 * @returns minutes (0 when the bed is shorter than its critical length), g/g and 1/min.
 */
export function breakthrough(input: BreakthroughInput): Breakthrough {
	const { adsorbate, bed, temperatureC, breakthroughFraction: fraction } = input;
	const temperatureK = temperatureC + ZERO_CELSIUS_K;
	const c0 = concentrationGPerCm3(input.concentrationPpm, adsorbate, temperatureC);
	const flowCm3PerMin = input.flowPerFilterLPerMin * 1000;
	const pe = polarisability(adsorbate);
	const logRatio = Math.min(logOf(fraction), logOf(LEAST_FRACTION), turningLog(pe));

	const relativePressure =
		((input.concentrationPpm / 1e6) * MMHG_PER_ATM) / adsorbate.saturationMmHg;
	const potential = (GAS_CONSTANT_CAL * temperatureK * Math.log(relativePressure)) ** 2;
	const capacity =
		bed.microporeVolumeCm3PerG *
		adsorbate.liquidDensityGPerCm3 *
		Math.exp(-AFFINITY * bed.microporeVolumeCm3PerG * pe ** -1.8 * potential);

	const faceVelocityCmPerS = flowCm3PerMin / 60 / bed.faceAreaCm2;
	const rate =
		1 / ((1 / faceVelocityCmPerS + 0.027) * (RATE_A + (RATE_B - RATE_C * logRatio) / pe));

	const minutes =
		(capacity * bed.carbonMassG) / (c0 * flowCm3PerMin) -
		((capacity * bed.packedDensityGPerCm3) / (rate * c0)) * logRatio;
	return {
		breakthroughMin: Math.max(0, minutes),
		capacityGPerG: capacity,
		rateConstantPerMin: rate
	};
}

function concentrationGPerCm3(ppm: number, adsorbate: Adsorbate, temperatureC: number): number {
	return ((ppm / 1e6) * adsorbate.molarMassGPerMol) / (molarVolumeLPerMol({ temperatureC }) * 1000);
}
