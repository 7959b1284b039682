import { InputError } from '../verdict.ts';
import { BAND_FACTOR, humidityFactor, serviceLife, type ServiceLifeInput } from './service-life.ts';

/** One point of a breakthrough curve: what comes through after so long. */
export interface CurvePoint {
	/** C/C0 behind the filter. */
	fraction: number;
	/** Minutes by the model, after the humidity reduction. */
	minutes: number;
	/** The same at the lower and the upper 95 % bound. */
	lower: number;
	upper: number;
}

/** Fractions at which the curve is drawn, closer together where it rises. */
const FRACTIONS = [
	0.001, 0.002, 0.005, 0.01, 0.02, 0.03, 0.05, 0.075, 0.1, 0.15, 0.2, 0.3, 0.4, 0.5, 0.6, 0.7, 0.8,
	0.9, 0.95, 0.98
];

/**
 * The breakthrough curve of a filter from the same model as its service life: for each fraction the time at which
 * it is reached, with the band of the validated spread. Times of zero (a bed shorter than its critical length for
 * that fraction) are kept, since they are what the wearer would meet.
 * @throws InputError as serviceLife does.
 */
export function breakthroughCurve(input: ServiceLifeInput): CurvePoint[] {
	const left = humidityFactor(input.relativeHumidityPercent);
	return FRACTIONS.map((fraction) => {
		const life = serviceLife({ ...input, breakthroughFraction: fraction });
		const minutes = life.breakthroughMin * left;
		return { fraction, minutes, lower: minutes / BAND_FACTOR, upper: minutes * BAND_FACTOR };
	});
}

/** What may be varied in the sensitivity picture. */
export type Varied =
	'concentrationPpm' | 'relativeHumidityPercent' | 'flowLPerMin' | 'temperatureC';

/**
 * Lower-bound life in minutes over a range of one input, all else equal; null where the model refuses, such as
 * above saturation.
 */
export function sensitivity(
	input: ServiceLifeInput,
	varied: Varied,
	values: readonly number[],
	adsorbateAt: (temperatureC: number) => ServiceLifeInput['adsorbate']
): (number | null)[] {
	return values.map((value) => {
		const changed = { ...input, [varied]: value };
		try {
			const adsorbate =
				varied === 'temperatureC' ? adsorbateAt(changed.temperatureC) : input.adsorbate;
			const life = serviceLife({ ...changed, adsorbate });
			return life.lowerBoundMin * life.humidityFactor;
		} catch (error) {
			if (error instanceof InputError) return null;
			throw error;
		}
	});
}
