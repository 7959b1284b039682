import { logAverage, mean, sampleCorrelation, sampleStandardDeviation } from 'simple-statistics';

/** Geometric mean of positive numbers. */
export const geometricMean = (values: readonly number[]): number => logAverage([...values]);

/** Geometric standard deviation (sample form, n − 1) of positive numbers. */
export const geometricStandardDeviation = (values: readonly number[]): number =>
	Math.exp(sampleStandardDeviation(values.map(Math.log)));

/** Spearman's rank correlation of two equally long samples; ties share their mean rank. */
export const rankCorrelation = (a: readonly number[], b: readonly number[]): number =>
	sampleCorrelation(ranks(a), ranks(b));

/** Arithmetic mean; NaN for none. */
const meanOf = (values: readonly number[]): number => (values.length ? mean([...values]) : NaN);
export { meanOf as mean };

function ranks(values: readonly number[]): number[] {
	const sorted = [...values].sort((x, y) => x - y);
	return values.map((v) => (sorted.indexOf(v) + sorted.lastIndexOf(v)) / 2 + 1);
}
