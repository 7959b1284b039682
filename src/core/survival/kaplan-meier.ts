import { normalQuantile } from '../stats/tolerance.ts';

/** One life: how long it was watched, and whether it failed then (else it was still good when it was last seen). */
export interface Life {
	/** In days, months, uses: the same for all; zero or more. */
	duration: number;
	failed: boolean;
}

export interface CurveStep {
	duration: number;
	/** How many were still watched just before. */
	atRisk: number;
	failed: number;
	/** Share that lives longer. */
	survival: number;
	/** Greenwood, log-log. */
	lower: number;
	upper: number;
}

export interface SurvivalCurve {
	/** A step per duration at which something failed. */
	curve: CurveStep[];
	/** The first duration at which half or fewer live on; null: not reached. */
	median: number | null;
	/** Longest that anything was watched. */
	watched: number;
}

/**
 * The share of parts that live longer than each duration, with a pointwise band; lives that did not end count as long as they
 * were watched. Published: Kaplan & Meier, J. Am. Stat. Assoc. 53 (1958) 457; variance by Greenwood 1926; band on the log(−log)
 * scale, Kalbfleisch & Prentice 1980; from memory. A life that is last seen where another fails is counted as longer than it.
 * @param confidence two-sided, of each step for itself
 * @throws RangeError where there is no life, or a duration below zero
 */
export function kaplanMeier(lives: readonly Life[], confidence = 0.95): SurvivalCurve {
	if (lives.length === 0) throw new RangeError('One life at least.');
	for (const { duration } of lives)
		if (!(duration >= 0) || !Number.isFinite(duration))
			throw new RangeError('Durations of zero or more.');
	const z = normalQuantile((1 + confidence) / 2);
	const sorted = [...lives].sort((a, b) => a.duration - b.duration);
	const curve: CurveStep[] = [];
	let survival = 1;
	let greenwood = 0;
	let at = 0;
	while (at < sorted.length) {
		const duration = sorted[at]?.duration ?? 0;
		const atRisk = sorted.length - at;
		let failed = 0;
		for (; at < sorted.length && sorted[at]?.duration === duration; at++)
			if (sorted[at]?.failed) failed++;
		if (failed === 0) continue;
		survival *= 1 - failed / atRisk;
		greenwood += failed / (atRisk * (atRisk - failed));
		curve.push({ duration, atRisk, failed, survival, ...band(survival, greenwood, z) });
	}
	return {
		curve,
		median: curve.find((step) => step.survival <= 0.5 + 1e-12)?.duration ?? null,
		watched: sorted.at(-1)?.duration ?? 0
	};
}

function band(survival: number, greenwood: number, z: number): { lower: number; upper: number } {
	// Where nothing lives on there is no spread to be had from it.
	if (survival <= 0) return { lower: 0, upper: 0 };
	const log = Math.log(survival);
	const spread = (z * Math.sqrt(greenwood)) / log;
	return { lower: survival ** Math.exp(-spread), upper: survival ** Math.exp(spread) };
}
