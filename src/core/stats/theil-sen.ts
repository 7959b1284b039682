import { median as middle } from 'simple-statistics';

/** A robust straight line: median of all slopes, median of the intercepts. */
export interface TheilSen {
	slope: number;
	intercept: number;
}

/**
 * Theil-Sen line through points; undefined for fewer than two different x.
 * Published: Theil 1950, Sen, J. Am. Stat. Assoc. 63 (1968) 1379; from memory.
 */
export function theilSen(points: readonly { x: number; y: number }[]): TheilSen | undefined {
	const slopes: number[] = [];
	points.forEach((a, i) => {
		for (const b of points.slice(i + 1)) if (a.x !== b.x) slopes.push((b.y - a.y) / (b.x - a.x));
	});
	if (slopes.length === 0) return undefined;
	const slope = median(slopes);
	return { slope, intercept: median(points.map((p) => p.y - slope * p.x)) };
}

/** One-sided 5 % point of the standard normal distribution. Published: any statistics text. */
const Z_95 = 1.645;

/**
 * Whether values in their order go one way rather than scatter: Mann-Kendall test, one-sided at 5 %, with the normal
 * approximation and the correction for continuity. Ties are counted as no direction, which makes it harder to pass.
 * Published: Mann, Econometrica 13 (1945) 245; Kendall; from memory.
 */
export function hasDirection(values: readonly number[]): boolean {
	const n = values.length;
	let s = 0;
	values.forEach((a, i) => values.slice(i + 1).forEach((b) => (s += Math.sign(b - a))));
	const variance = (n * (n - 1) * (2 * n + 5)) / 18;
	return n > 1 && (Math.abs(s) - 1) / Math.sqrt(variance) >= Z_95;
}

/** From the median absolute deviation to the standard deviation of a normal sample. Published: any statistics text. */
export const MAD_TO_SD = 1.4826;

/** Middle of a list; the mean of the two middle ones where it is even. NaN for none. */
export const median = (values: readonly number[]): number =>
	values.length ? middle([...values]) : NaN;
