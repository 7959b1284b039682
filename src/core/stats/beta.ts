/** Coefficients of the logarithm of the gamma function. Published: Lanczos 1964, g = 7, n = 9; from memory. */
const LANCZOS = [
	0.99999999999980993, 676.5203681218851, -1259.1392167224028, 771.32342877765313,
	-176.61502916214059, 12.507343278686905, -0.13857109526572012, 9.9843695780195716e-6,
	1.5056327351493116e-7
] as const;

/** ln Γ(x) for x > 0. */
export function logGamma(x: number): number {
	if (x < 0.5) return Math.log(Math.PI / Math.sin(Math.PI * x)) - logGamma(1 - x);
	const z = x - 1;
	const t = z + 7.5;
	const sum = LANCZOS.slice(1).reduce<number>((acc, c, i) => acc + c / (z + i + 1), LANCZOS[0]);
	return 0.5 * Math.log(2 * Math.PI) + (z + 0.5) * Math.log(t) - t + Math.log(sum);
}

const STEPS = 300;
const TINY = 1e-300;
const NEAR = 1e-14;

/** The continued fraction of the incomplete beta function. Published: DLMF 8.17.22, by Lentz's method; from memory. */
function fraction(x: number, a: number, b: number): number {
	const whole = (value: number) => (Math.abs(value) < TINY ? TINY : value);
	let c = 1;
	let d = 1 / whole(1 - ((a + b) * x) / (a + 1));
	let h = d;
	for (let m = 1; m <= STEPS; m++) {
		const even = (m * (b - m) * x) / ((a + 2 * m - 1) * (a + 2 * m));
		d = 1 / whole(1 + even * d);
		c = whole(1 + even / c);
		h *= d * c;
		const odd = (-(a + m) * (a + b + m) * x) / ((a + 2 * m) * (a + 2 * m + 1));
		d = 1 / whole(1 + odd * d);
		c = whole(1 + odd / c);
		h *= d * c;
		if (Math.abs(d * c - 1) < NEAR) break;
	}
	return h;
}

/** The beta distribution function: chance of a share up to x. @throws RangeError where a or b is not above zero */
export function betaProbability(x: number, a: number, b: number): number {
	if (!(a > 0) || !(b > 0)) throw new RangeError('Both shapes of a beta lie above zero.');
	if (x <= 0) return 0;
	if (x >= 1) return 1;
	const front = Math.exp(
		logGamma(a + b) - logGamma(a) - logGamma(b) + a * Math.log(x) + b * Math.log1p(-x)
	);
	return x < (a + 1) / (a + b + 2)
		? (front * fraction(x, a, b)) / a
		: 1 - (front * fraction(1 - x, b, a)) / b;
}

/** The share up to which the chance is p; by bisection. */
export function betaQuantile(p: number, a: number, b: number): number {
	let [low, high] = [0, 1];
	for (let i = 0; i < 60; i++) {
		const middle = (low + high) / 2;
		if (betaProbability(middle, a, b) < p) low = middle;
		else high = middle;
	}
	return (low + high) / 2;
}
