import { logGamma } from './beta.ts';

/** Beyond so many standard deviations nothing is left that a double could hold. */
const SPREAD = 12;

/**
 * Chance that a Poisson count is at most k.
 * @param mean expected count, 0 or more
 */
export function poissonProbability(k: number, mean: number): number {
	if (k < 0) return 0;
	if (mean === 0) return 1;
	const reach = SPREAD * Math.sqrt(mean) + SPREAD;
	if (k >= mean + reach) return 1;
	let sum = 0;
	const first = Math.max(0, Math.floor(mean - reach));
	for (let n = first, term = weight(first, mean); n <= Math.floor(k); n++, term *= mean / n)
		sum += term;
	return Math.min(1, sum);
}

/**
 * The least count that a Poisson count does not go above with a chance of at least p.
 * @param p above 0 and below 1
 */
export function poissonQuantile(p: number, mean: number): number {
	if (mean === 0) return 0;
	const first = Math.max(0, Math.floor(mean - SPREAD * Math.sqrt(mean) - SPREAD));
	let n = first;
	let sum = weight(first, mean);
	for (let term = sum; sum < p && term > 0;) {
		n++;
		term *= mean / n;
		sum += term;
	}
	return n;
}

/** Chance of exactly n. */
const weight = (n: number, mean: number): number =>
	Math.exp(n * Math.log(mean) - mean - logGamma(n + 1));
