import { normalQuantile } from './tolerance.ts';

/** A share with how sure it is. */
export interface Share {
	failures: number;
	trials: number;
	rate: number;
	lower: number;
	upper: number;
}

/**
 * A share of failures with its score interval. Published: Wilson, J. Am. Stat. Assoc. 22 (1927) 209; from memory.
 * @param confidence two-sided, 0.95 where left out
 * @throws RangeError where there is no trial, or more failures than trials
 */
export function wilson(failures: number, trials: number, confidence = 0.95): Share {
	if (!(trials > 0) || !(failures >= 0) || failures > trials)
		throw new RangeError('Trials above zero, and failures from zero to the trials.');
	const z = normalQuantile((1 + confidence) / 2);
	const rate = failures / trials;
	const spread = z ** 2 / trials;
	const centre = (rate + spread / 2) / (1 + spread);
	const half = (z / (1 + spread)) * Math.sqrt((rate * (1 - rate)) / trials + spread / (4 * trials));
	return {
		failures,
		trials,
		rate,
		// At the ends the interval ends there, to the last digit.
		lower: failures === 0 ? 0 : Math.max(0, centre - half),
		upper: failures === trials ? 1 : Math.min(1, centre + half)
	};
}
