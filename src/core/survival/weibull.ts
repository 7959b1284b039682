import { logGamma } from '../stats/beta.ts';
import { normalQuantile } from '../stats/tolerance.ts';
import type { Life } from './kaplan-meier.ts';

/** A Weibull law of lives: the share that lives longer than t is exp(−(t/scale)^shape). */
export interface Weibull {
	shape: number;
	/** In the unit of the durations; 63.2 % have failed by then. */
	scale: number;
}

export interface WeibullFit extends Weibull {
	/** 95 % interval of the shape, on the log scale. */
	shapeLower: number;
	shapeUpper: number;
	failures: number;
}

/** Fewer failures give no shape that can be relied on. Common practice. */
export const FEWEST_FAILURES = 5;
const STEPS = 200;
const NEAR = 1e-12;

/**
 * Weibull law of lives by maximum likelihood, those that did not end counted as such. Published: Cohen, Technometrics 7 (1965) 579;
 * interval from the observed information; from memory.
 * @returns null where fewer than two lives failed, or all failed at one duration: no shape follows
 */
export function fitWeibull(lives: readonly Life[], confidence = 0.95): WeibullFit | null {
	const known = lives.filter(({ duration }) => duration > 0);
	const failed = known.filter((life) => life.failed);
	const failures = failed.length;
	if (failures < 2) return null;
	const longest = Math.max(...known.map(({ duration }) => duration));
	// Counted in the longest life, so that no power overflows.
	const logs = known.map(({ duration }) => Math.log(duration / longest));
	const meanLog = failed.reduce((sum, l) => sum + Math.log(l.duration / longest), 0) / failures;
	const sums = (shape: number) => {
		let [s0, s1, s2] = [0, 0, 0];
		for (const log of logs) {
			const power = Math.exp(shape * log);
			s0 += power;
			s1 += power * log;
			s2 += power * log * log;
		}
		return { s0, s1, s2 };
	};
	/** Zero at the likeliest shape; falls steadily. */
	const slope = (shape: number) => {
		const { s0, s1 } = sums(shape);
		return 1 / shape + meanLog - s1 / s0;
	};
	let [low, high] = [1e-3, 1];
	while (slope(high) > 0) {
		low = high;
		high *= 2;
		if (high > 1e6) return null;
	}
	for (let i = 0; i < STEPS && high - low > NEAR * high; i++) {
		const middle = (low + high) / 2;
		if (slope(middle) > 0) low = middle;
		else high = middle;
	}
	const shape = (low + high) / 2;
	const { s0, s1, s2 } = sums(shape);
	// Information of the shape with the scale taken out.
	const information = failures * (1 / shape ** 2 + s2 / s0 - (s1 / s0) ** 2);
	const spread = normalQuantile((1 + confidence) / 2) / Math.sqrt(information) / shape;
	return {
		shape,
		scale: longest * (s0 / failures) ** (1 / shape),
		shapeLower: shape * Math.exp(-spread),
		shapeUpper: shape * Math.exp(spread),
		failures
	};
}

/** How a part fails, by the interval of the shape: against 1, a rate that neither rises nor falls. */
export function manner({ shapeLower, shapeUpper }: WeibullFit): 'wears out' | 'early' | 'random' {
	if (shapeLower > 1) return 'wears out';
	return shapeUpper < 1 ? 'early' : 'random';
}

/** Share that lives longer than t. */
export const weibullSurvival = (t: number, { shape, scale }: Weibull): number =>
	t <= 0 ? 1 : Math.exp(-((t / scale) ** shape));

/** Mean life. */
export const weibullMean = ({ shape, scale }: Weibull): number =>
	scale * Math.exp(logGamma(1 + 1 / shape));
