/**
 * Standard normal distribution function, by the continued fraction and series of the error function.
 * Published: Abramowitz & Stegun 26.2 (series 26.2.10, fraction 26.2.14); absolute error below 1e-12.
 */
export function normalProbability(z: number): number {
	if (z < 0) return 1 - normalProbability(-z);
	const density = Math.exp((-z * z) / 2) / Math.sqrt(2 * Math.PI);
	if (z < 4) {
		let [term, sum] = [z, z];
		for (let k = 1; k < 200 && term > 1e-17 * sum; k++) sum += term *= (z * z) / (2 * k + 1);
		return 0.5 + density * sum;
	}
	let fraction = z;
	for (let k = 60; k >= 1; k--) fraction = z + k / fraction;
	return 1 - density / fraction;
}

/** Inverse of normalProbability by bisection, for 0 < p < 1. */
export const normalQuantile = (p: number): number =>
	bisect((z) => normalProbability(z) - p, -10, 10);

/**
 * One-sided tolerance factor k of a normal sample: mean + k·s lies above the coverage quantile with the given
 * confidence. Exact: k·√n is a quantile of the noncentral t distribution, whose distribution function is taken
 * by integrating over the distribution of s.
 * Published: Hahn & Meeker, Statistical Intervals; EN 689:2018 annex F tabulates it; from memory.
 */
export function toleranceFactor(n: number, coverage: number, confidence: number): number {
	const key = `${n} ${coverage} ${confidence}`;
	let factor = factors.get(key);
	if (factor === undefined) {
		const shift = normalQuantile(coverage);
		factor = bisect((k) => coveredWith(k, n, shift) - confidence, 0, 200);
		factors.set(key, factor);
	}
	return factor;
}

/** Each factor is integrated once: a plan asks for the same one at every keystroke. */
const factors = new Map<string, number>();

/** P(mean + k·s > shift) for a standard normal sample of n: mean ~ N(0, 1/n), s² ~ χ²(n−1)/(n−1). */
function coveredWith(k: number, n: number, shift: number): number {
	const freedom = n - 1;
	const norm = logChiNorm(freedom);
	// s over the range where its density is not negligible, by Simpson's rule.
	const [low, high] = [0, 1 + 12 / Math.sqrt(2 * freedom)];
	const steps = 400;
	const width = (high - low) / steps;
	let sum = 0;
	for (let i = 0; i <= steps; i++) {
		const s = low + i * width;
		const weight = i === 0 || i === steps ? 1 : i % 2 ? 4 : 2;
		sum +=
			weight * chiDensity(s, freedom, norm) * normalProbability(Math.sqrt(n) * (k * s - shift));
	}
	return (sum * width) / 3;
}

/** Density of s = √(χ²/ν). */
function chiDensity(s: number, freedom: number, norm: number): number {
	if (s === 0) return freedom === 1 ? Math.exp(norm) : 0;
	return Math.exp(norm + (freedom - 1) * Math.log(s) - (freedom * s * s) / 2);
}

const logChiNorm = (freedom: number) =>
	Math.LN2 + (freedom / 2) * Math.log(freedom / 2) - logGamma(freedom / 2);

/** ln Γ of a multiple of one half above zero, by its recurrence. */
function logGamma(x: number): number {
	let value = Number.isInteger(x) ? 0 : Math.log(Math.PI) / 2;
	for (let at = Number.isInteger(x) ? 1 : 0.5; at < x; at++) value += Math.log(at);
	return value;
}

function bisect(rising: (x: number) => number, from: number, to: number): number {
	let [low, high] = [from, to];
	for (let i = 0; i < 48; i++) {
		const middle = (low + high) / 2;
		if (rising(middle) < 0) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}
