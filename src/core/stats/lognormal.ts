import { InputError } from '../verdict.ts';
import { geometricMean, geometricStandardDeviation, mean } from './sample.ts';
import { normalQuantile, toleranceFactor } from './tolerance.ts';

/** What a set of exposure measurements says, taken as a lognormal sample. */
export interface LognormalSummary {
	n: number;
	lowest: number;
	highest: number;
	mean: number;
	geometricMean: number;
	geometricStandardDeviation: number;
	/** Point estimate of the 95th percentile, GM · GSD^1.645. */
	percentile95: number;
	/** Upper 70 % confidence limit of the 95th percentile; what a plan is made with. */
	upperLimit95: number;
}

/** Fewer measurements give no spread that can be relied on. Published: EN 689:2018, 5.5.2; from memory. */
export const FEWEST_MEASUREMENTS = 3;
/** Confidence of the upper limit. Published: EN 689:2018, annex F; from memory. */
const CONFIDENCE = 0.7;
const COVERAGE = 0.95;

/**
 * Summarises measurements of one contaminant in one unit.
 *
 * The upper limit is the one-sided tolerance limit of the 95th percentile at 70 % confidence,
 * exp(ȳ + k·s) with ȳ, s of the logarithms (published: EN 689:2018, annex F; from memory). A reading of zero
 * cannot be taken: enter half the detection limit instead (common practice).
 * @throws InputError located at values[i] on a value that is not above zero, at values on fewer than three.
 */
export function summariseExposure(values: readonly number[]): LognormalSummary {
	values.forEach((value, i) => {
		if (!Number.isFinite(value) || value <= 0)
			throw new InputError(
				`values[${i}]`,
				'Each measurement must be above zero. For one below detection enter half the detection limit.'
			);
	});
	const n = values.length;
	if (n < FEWEST_MEASUREMENTS)
		throw new InputError(
			'values',
			`${n} ${n === 1 ? 'measurement gives' : 'measurements give'} no spread; three are the least. Enter the highest as the concentration instead.`
		);
	const centre = geometricMean(values);
	const spread = geometricStandardDeviation(values);
	return {
		n,
		lowest: Math.min(...values),
		highest: Math.max(...values),
		mean: mean(values),
		geometricMean: centre,
		geometricStandardDeviation: spread,
		percentile95: centre * spread ** normalQuantile(COVERAGE),
		upperLimit95: centre * spread ** toleranceFactor(n, COVERAGE, CONFIDENCE)
	};
}
