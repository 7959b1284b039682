import { logGamma } from './beta.ts';

const STEPS = 1_000;
const TINY = 1e-300;
const NEAR = 1e-15;

/**
 * Upper regularised incomplete gamma function Q(a, x), the chance that a gamma variable of shape a is above x.
 * Published: series and continued fraction, DLMF 8.11.4 and 8.9.2; from memory.
 * @throws RangeError where a is not above zero or x is below zero
 */
export function gammaAbove(a: number, x: number): number {
	if (!(a > 0) || !(x >= 0)) throw new RangeError('A shape above zero, and x of zero or more.');
	if (x === 0) return 1;
	return x < a + 1 ? 1 - series(a, x) : continued(a, x);
}

/** Lower regularised incomplete gamma function P(a, x) = 1 − Q(a, x), exact where it is small. */
export function gammaBelow(a: number, x: number): number {
	if (!(a > 0) || !(x >= 0)) throw new RangeError('A shape above zero, and x of zero or more.');
	if (x === 0) return 0;
	return x < a + 1 ? series(a, x) : 1 - continued(a, x);
}

const front = (a: number, x: number): number => Math.exp(a * Math.log(x) - x - logGamma(a));

function series(a: number, x: number): number {
	let term = 1 / a;
	let sum = term;
	for (let n = 1; n <= STEPS && term > sum * NEAR; n++) {
		term *= x / (a + n);
		sum += term;
	}
	return sum * front(a, x);
}

/** By Lentz's method. */
function continued(a: number, x: number): number {
	const whole = (value: number) => (Math.abs(value) < TINY ? TINY : value);
	let b = x + 1 - a;
	let c = 1 / TINY;
	let d = 1 / whole(b);
	let h = d;
	for (let n = 1; n <= STEPS; n++) {
		const an = -n * (n - a);
		b += 2;
		d = 1 / whole(an * d + b);
		c = whole(b + an / c);
		h *= d * c;
		if (Math.abs(d * c - 1) < NEAR) break;
	}
	return h * front(a, x);
}

/** Chance that a χ² variable is above x. @param freedom degrees of freedom, above 0 */
export const chiSquareAbove = (x: number, freedom: number): number =>
	gammaAbove(freedom / 2, x / 2);

/** Chance that a Poisson count is at least k, exact where it is small. @param mean expected count, 0 or more */
export const poissonAtLeast = (k: number, mean: number): number =>
	k <= 0 ? 1 : mean <= 0 ? 0 : gammaBelow(k, mean);
