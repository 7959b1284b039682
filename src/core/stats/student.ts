/**
 * Student's t distribution function for whole degrees of freedom, by its closed series.
 * Published: Abramowitz & Stegun 26.7.3 and 26.7.4; from memory.
 */
export function studentProbability(t: number, freedom: number): number {
	const angle = Math.atan(t / Math.sqrt(freedom));
	const [sine, cosine] = [Math.sin(angle), Math.cos(angle)];
	const odd = freedom % 2 === 1;
	let [term, sum] = [odd ? cosine : 1, 0];
	for (let k = odd ? 1 : 0; k <= freedom - 2; k += 2) {
		sum += term;
		term *= ((k + 1) / (k + 2)) * cosine * cosine;
	}
	const both = odd ? (2 / Math.PI) * (angle + sine * sum) : sine * sum;
	return (1 + both) / 2;
}

/** Inverse of studentProbability by bisection, for 0.5 ≤ p < 1. @throws RangeError on less than one degree of freedom */
export function studentQuantile(p: number, freedom: number): number {
	if (!Number.isInteger(freedom) || freedom < 1)
		throw new RangeError('A whole number of degrees of freedom, one at least.');
	let [low, high] = [0, 1];
	while (studentProbability(high, freedom) < p && high < 1e9) high *= 2;
	for (let i = 0; i < 60; i++) {
		const middle = (low + high) / 2;
		if (studentProbability(middle, freedom) < p) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}
