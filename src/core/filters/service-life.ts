import type { Substance } from '../data/substance.ts';
import {
	commonPractice,
	computed,
	InputError,
	published,
	type Reason,
	type Verdict
} from '../verdict.ts';
import { MMHG_PER_ATM } from '../units/concentration.ts';
import { readableNumber } from '../units/number.ts';
import { saturationMmHg } from './vapour-pressure.ts';
import {
	breakthrough,
	DEFAULT_BED,
	LEAST_FRACTION,
	turningPpm,
	type Adsorbate,
	type Bed
} from './wheeler-jonas.ts';

/**
 * Geometric standard deviation of predicted over measured breakthrough time in the twin-cartridge tests.
 * Computed: wheeler-jonas.test.ts recomputes it from the data and fails when this no longer holds.
 */
export const VALIDATED_GEOMETRIC_SD = 1.29;
/** One-sided 95 % quantile of the normal distribution. Published: any table of the normal distribution. */
const QUANTILE_95 = 1.645;
/** From the estimate to either 95 % bound. Computed from the two values above. */
export const BAND_FACTOR = VALIDATED_GEOMETRIC_SD ** QUANTILE_95;
/** The model was validated on breakthrough times above this many minutes only. */
export const VALIDATED_ABOVE_MIN = 20;
/** Breakthrough that a change time is worked out for where the limit asks for no less. Common practice. */
export const USUAL_BREAKTHROUGH = 0.1;
/** A change time beyond one shift is not recommended. Site: a shift of eight hours. */
export const SHIFT_MIN = 480;
/** Published: EN 14387, low boilers end here; the same line limits reuse on another day. From memory. */
export const LOW_BOILER_C = 65;

export const MODEL_ORIGIN = published(
	'Wheeler-Jonas equation with the correlations of Wood, AIHA J. 55 (1994) 11-15, and Wood & Stampfer, Carbon 31 (1993) 195-200'
);

/** Minute ventilation by work rate, L/min. Common practice. */
export const WORK_RATES = { rest: 10, light: 30, moderate: 40, hard: 60, heavy: 85 } as const;
export type WorkRate = keyof typeof WORK_RATES;

export interface ServiceLifeInput {
	adsorbate: Adsorbate;
	concentrationPpm: number;
	/** Total flow that the wearer draws. */
	flowLPerMin: number;
	/** How many filters share the flow. */
	filters: number;
	temperatureC: number;
	relativeHumidityPercent: number;
	breakthroughFraction: number;
	bed: Bed;
	/** Known trap of the substance, which no estimate overrides. */
	noFilter?: string;
	/** Times that a rule fixes, which the estimate never goes beyond. */
	fixed?: readonly { minutes: number; reason: Reason }[];
}

export interface ServiceLife extends Verdict<'estimate' | 'not with this filter'> {
	breakthroughMin: number;
	capacityGPerG: number;
	rateConstantPerMin: number;
	/** Lower one-sided 95 % bound of the breakthrough time, before the humidity reduction. */
	lowerBoundMin: number;
	humidityFactor: number;
	/** Change time: lower bound, humidity, then rounded down to a time one can keep. */
	recommendedMin: number;
}

/**
 * The part of the dry life that is left at a relative humidity: whole up to 65 %, falling evenly to half at
 * 85 %, half above. Published rule of thumb: AIHA, The Occupational Environment; from memory.
 */
export function humidityFactor(relativeHumidityPercent: number): number {
	if (relativeHumidityPercent <= 65) return 1;
	if (relativeHumidityPercent >= 85) return 0.5;
	return 1 - 0.5 * ((relativeHumidityPercent - 65) / 20);
}

/**
 * Rounds minutes down to a time that a person can keep: 5 min steps below an hour, 15 below four hours, then
 * half hours, one shift at most. Site: Grevan's choice.
 */
export function keepableMinutes(minutes: number): number {
	const capped = Math.min(minutes, SHIFT_MIN);
	const step = capped < 60 ? 5 : capped < 240 ? 15 : 30;
	return Math.floor(capped / step) * step;
}

/**
 * Estimated service life of an organic vapour filter with its uncertainty.
 * @throws InputError for values outside what the model can take.
 */
export function serviceLife(input: ServiceLifeInput): ServiceLife {
	check(input);
	const { bed, concentrationPpm, temperatureC, breakthroughFraction } = input;
	const at = (ppm: number) =>
		breakthrough({
			adsorbate: input.adsorbate,
			concentrationPpm: ppm,
			flowPerFilterLPerMin: input.flowLPerMin / input.filters,
			temperatureC,
			breakthroughFraction,
			bed
		});
	const result = at(concentrationPpm);
	const turning = turningPpm(input.adsorbate, temperatureC, bed);
	const lastsMin =
		concentrationPpm < turning ? at(turning).breakthroughMin : result.breakthroughMin;
	const humidity = humidityFactor(input.relativeHumidityPercent);
	const lowerBoundMin = lastsMin / BAND_FACTOR;
	const refusal = refusalOf(input, lastsMin);
	const fixed = input.fixed ?? [];
	const recommendedMin = refusal
		? 0
		: keepableMinutes(Math.min(lowerBoundMin * humidity, ...fixed.map(({ minutes }) => minutes)));
	return {
		outcome: refusal ? 'not with this filter' : 'estimate',
		...result,
		lowerBoundMin,
		humidityFactor: humidity,
		recommendedMin,
		reasons: [
			...(refusal ? [refusal] : []),
			...explain(input, result, lowerBoundMin, humidity),
			...bounds(input, turning, lastsMin),
			...fixed.map(({ reason }) => reason)
		]
	};
}

/**
 * The filter input of a library substance at a temperature.
 * @throws InputError naming the value that the library lacks.
 */
export function adsorbateOf(substance: Substance, temperatureC: number): Adsorbate {
	refuseOthers(substance);
	const { molarMassGPerMol, liquidDensityGPerCm3, refractiveIndex } = substance;
	const pressure = saturationMmHg(substance, temperatureC);
	const lacks = (what: string): never => {
		throw new InputError(
			'substance',
			`${substance.name}: the library has no ${what}, so no service life can be estimated.`
		);
	};
	return {
		molarMassGPerMol: molarMassGPerMol ?? lacks('molar mass'),
		liquidDensityGPerCm3: liquidDensityGPerCm3 ?? lacks('liquid density'),
		refractiveIndex: refractiveIndex ?? lacks('refractive index'),
		saturationMmHg: pressure ?? lacks('vapour pressure at this temperature')
	};
}

/** @throws InputError saying what the substance is, where the vapour model is not for it at all */
function refuseOthers(substance: Substance): void {
	const refuse = (text: string): never => {
		throw new InputError('substance', `${substance.name} ${text}`);
	};
	if (canEstimate(substance)) return;
	if (substance.noFilter)
		refuse(`has no filter whose life could be estimated: ${substance.noFilter}.`);
	if (!substance.organic) {
		const particle = substance.form !== 'gas' && substance.form !== 'vapour';
		const type = substance.en ? ` (type ${substance.en})` : '';
		refuse(
			particle
				? 'is caught by a particle filter, which is changed on breathing resistance; the model is for organic vapours.'
				: `is an inorganic gas: the model is for organic vapours on carbon. Its time comes from the class test of its own filter${type} or from the maker.`
		);
	}
}

/** Whether a library substance carries all that the model needs. */
export function canEstimate(substance: Substance): boolean {
	return Boolean(
		substance.organic &&
		substance.molarMassGPerMol &&
		substance.liquidDensityGPerCm3 &&
		substance.refractiveIndex &&
		(substance.antoine ?? substance.vapourPressureMmHg)
	);
}

/** Bed values of the maker over the defaults. */
export const bedOf = (bed?: Partial<Bed> | null): Bed => ({ ...DEFAULT_BED, ...bed });

function check(input: ServiceLifeInput): void {
	const above = (path: string, value: number, name: string) => {
		if (!(value > 0) || !Number.isFinite(value))
			throw new InputError(path, `${name} must be above zero.`);
	};
	const { adsorbate, bed } = input;
	above('concentrationPpm', input.concentrationPpm, 'The concentration');
	above('flowLPerMin', input.flowLPerMin, 'The flow');
	above('filters', input.filters, 'The number of filters');
	for (const [key, value] of Object.entries(adsorbate)) above(key, value, key);
	for (const [key, value] of Object.entries(bed)) above(`bed.${key}`, value, key);
	if (adsorbate.refractiveIndex <= 1)
		throw new InputError('refractiveIndex', 'A refractive index of a liquid lies above 1.');
	if (!(input.breakthroughFraction > 0 && input.breakthroughFraction < 1))
		throw new InputError('breakthroughFraction', 'The breakthrough fraction lies between 0 and 1.');
	if (!(input.relativeHumidityPercent >= 0 && input.relativeHumidityPercent <= 100))
		throw new InputError('relativeHumidityPercent', 'Relative humidity lies between 0 and 100 %.');
	if (!(input.temperatureC >= -40 && input.temperatureC <= 80))
		throw new InputError('temperatureC', 'The model holds between −40 and 80 °C.');
	const saturation = (adsorbate.saturationMmHg / MMHG_PER_ATM) * 1e6;
	if (input.concentrationPpm >= Math.min(saturation, 1e6))
		throw new InputError(
			'concentrationPpm',
			`${format(input.concentrationPpm)} ppm lies above saturation: at ${input.temperatureC} °C the vapour reaches ${format(saturation)} ppm at most.`
		);
}

function refusalOf(input: ServiceLifeInput, breakthroughMin: number): Reason | undefined {
	if (input.noFilter)
		return {
			rule: 'filter.trap',
			text: `${input.noFilter}. Not with this filter, whatever the estimate says.`,
			origin: commonPractice('known traps of air-purifying filters')
		};
	if (breakthroughMin >= VALIDATED_ABOVE_MIN) return undefined;
	return {
		rule: 'filter.outside-validation',
		text: `The estimate of ${breakthroughMin.toFixed(1)} min lies below the ${VALIDATED_ABOVE_MIN} min that the model was validated above. Not with this filter.`,
		origin: computed('twin-cartridge tests, times above 20 min'),
		limit: VALIDATED_ABOVE_MIN,
		value: breakthroughMin,
		unit: 'min',
		margin: breakthroughMin - VALIDATED_ABOVE_MIN
	};
}

function explain(
	input: ServiceLifeInput,
	result: { breakthroughMin: number; capacityGPerG: number; rateConstantPerMin: number },
	lowerBoundMin: number,
	humidity: number
): Reason[] {
	const perFilter = input.flowLPerMin / input.filters;
	return [
		{
			rule: 'filter.wheeler-jonas',
			text: `The model reaches ${format(input.breakthroughFraction * 100)} % of the outside concentration after ${result.breakthroughMin.toFixed(0)} min.`,
			origin: MODEL_ORIGIN,
			inputs: [
				{ name: 'concentration', value: input.concentrationPpm, unit: 'ppm' },
				{ name: 'flow through one filter', value: perFilter, unit: 'L/min' },
				{ name: 'temperature', value: input.temperatureC, unit: '°C' },
				{ name: 'carbon in one filter', value: input.bed.carbonMassG, unit: 'g' },
				{ name: 'capacity', value: Number(result.capacityGPerG.toFixed(4)), unit: 'g/g' },
				{ name: 'rate', value: Math.round(result.rateConstantPerMin), unit: '1/min' }
			],
			value: result.breakthroughMin,
			unit: 'min'
		},
		{
			rule: 'filter.uncertainty',
			text: `${lowerBoundMin.toFixed(0)} min is its lower 95 % bound: in the tests the model spread by a factor of ${VALIDATED_GEOMETRIC_SD}.`,
			origin: computed(
				'geometric standard deviation over the twin-cartridge tests of Nelson & Harder'
			),
			value: lowerBoundMin,
			unit: 'min'
		},
		{
			rule: 'filter.humidity',
			text:
				humidity === 1
					? `Humidity of ${input.relativeHumidityPercent} % takes nothing off (65 % and below).`
					: `Humidity of ${input.relativeHumidityPercent} % leaves ${format(humidity * 100)} % of it.`,
			origin: published('AIHA, The Occupational Environment, rule of thumb'),
			inputs: [{ name: 'relative humidity', value: input.relativeHumidityPercent, unit: '%' }],
			value: lowerBoundMin * humidity,
			unit: 'min'
		}
	];
}

/** Where the model is not taken at its word, at its lower ends. */
function bounds(input: ServiceLifeInput, turning: number, lastsMin: number): Reason[] {
	const reasons: Reason[] = [];
	if (input.breakthroughFraction < LEAST_FRACTION)
		reasons.push({
			rule: 'filter.least-fraction',
			text: `Below a breakthrough of ${format(LEAST_FRACTION * 100)} % the model no longer holds: the life at ${format(LEAST_FRACTION * 100)} % is given.`,
			origin: computed('the rate term of the correlation changes sign'),
			limit: LEAST_FRACTION,
			value: input.breakthroughFraction,
			unit: ''
		});
	if (input.concentrationPpm < turning)
		reasons.push({
			rule: 'filter.low-concentration',
			text: `Below ${format(turning)} ppm the correlation loses capacity faster than there is less to hold; less never breaks through sooner, so ${lastsMin.toFixed(0)} min is taken.`,
			origin: computed('turning point of the capacity correlation'),
			limit: turning,
			value: input.concentrationPpm,
			unit: 'ppm'
		});
	return reasons;
}

const format = (value: number) => readableNumber(value, 4);
