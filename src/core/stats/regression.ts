import { logGamma } from './beta.ts';
import { invert } from './matrix.ts';

/** Counts to be explained: one row per cell of alike observations. */
export interface RegressionInput {
	/** logistic: a share of failures among trials; poisson: a count of failures per exposure. */
	law: 'logistic' | 'poisson';
	/** A row of causes per cell; the first column is 1 for the level of all. */
	design: readonly (readonly number[])[];
	failures: readonly number[];
	/** Trials of each cell, or its exposure; above zero. */
	size: readonly number[];
}

export interface Regression {
	/** Logarithm of the odds or of the rate that each column multiplies by. */
	coefficients: number[];
	/** Standard errors, from the expected information. */
	errors: number[];
	deviance: number;
	/** Of this fit, with its constant terms. */
	logLikelihood: number;
	/** Pearson's χ² over its degrees of freedom: above 1 the counts scatter more than the law says. 1 where none are left. */
	dispersion: number;
	freedom: number;
}

const STEPS = 50;
const NEAR = 1e-10;
/** Beyond this a rate has run off to zero or to one: no finite value fits best. */
const FARTHEST = 15;

/**
 * Logistic or Poisson regression by iteratively reweighted least squares. Published: Nelder & Wedderburn, J. R. Stat. Soc. A 135 (1972)
 * 370; McCullagh & Nelder 1989; from memory.
 * @returns null where no single finite fit is best: columns that say the same, or a cause without a failure, or with nothing else
 * @throws RangeError where the rows do not go together
 */
export function regress(input: RegressionInput): Regression | null {
	const { law, design, failures, size } = input;
	const width = design[0]?.length ?? 0;
	if (
		design.length === 0 ||
		failures.length !== design.length ||
		size.length !== design.length ||
		design.some((row) => row.length !== width)
	)
		throw new RangeError('A row of the same causes, a count and a size for each cell.');
	const all = failures.reduce((sum, y) => sum + y, 0);
	const total = size.reduce((sum, n) => sum + n, 0);
	if (all === 0 || (law === 'logistic' && all === total)) return null;
	// From where each cell stands by itself, drawn in a little so that none stands at the edge.
	let etas = design.map((_, i) => {
		const [y, n] = [failures[i] ?? 0, size[i] ?? 0];
		return law === 'logistic'
			? Math.log((y + 0.5) / (n - y + 0.5))
			: Math.log((y + (0.1 * all) / design.length) / n);
	});
	let last = Infinity;
	for (let step = 0; step < STEPS; step++) {
		const { information, right } = normalEquations(input, etas);
		const beta = invert(information)?.map((row) => dot(row, right));
		if (!beta?.every((b) => Math.abs(b) < FARTHEST * 2)) return null;
		etas = design.map((row) => dot(row, beta));
		const deviance = devianceOf(input, etas);
		if (Math.abs(deviance - last) < NEAR * (Math.abs(deviance) + 0.1))
			return fitted(input, beta, etas, deviance);
		last = deviance;
	}
	return null;
}

function fitted(
	input: RegressionInput,
	beta: number[],
	etas: readonly number[],
	deviance: number
): Regression | null {
	const { law, design, failures, size } = input;
	const { information } = normalEquations(input, etas);
	const covariance = invert(information);
	// What ran off to the edge has an error beyond any use.
	if (!covariance || covariance.some((row, i) => Math.sqrt(row[i] ?? 0) > FARTHEST)) return null;
	const freedom = design.length - beta.length;
	let pearson = 0;
	let logLikelihood = 0;
	etas.forEach((eta, i) => {
		const [y, n] = [failures[i] ?? 0, size[i] ?? 0];
		const mean = meanOf(law, eta) * n;
		pearson += (y - mean) ** 2 / (law === 'logistic' ? mean * (1 - mean / n) : mean);
		logLikelihood +=
			law === 'logistic'
				? logGamma(n + 1) -
					logGamma(y + 1) -
					logGamma(n - y + 1) +
					times(y, Math.log(mean / n)) +
					times(n - y, Math.log1p(-mean / n))
				: times(y, Math.log(mean)) - mean - logGamma(y + 1);
	});
	return {
		coefficients: beta,
		errors: covariance.map((row, i) => Math.sqrt(row[i] ?? 0)),
		deviance,
		logLikelihood,
		dispersion: freedom > 0 ? pearson / freedom : 1,
		freedom
	};
}

const dot = (a: readonly number[], b: readonly number[]): number =>
	a.reduce((sum, x, i) => sum + x * (b[i] ?? 0), 0);
/** y · x, zero where y is, however far x ran off. */
const times = (y: number, x: number): number => (y === 0 ? 0 : y * x);

/** Mean per trial or per unit of exposure. */
const meanOf = (law: RegressionInput['law'], eta: number): number =>
	law === 'logistic' ? 1 / (1 + Math.exp(-eta)) : Math.exp(eta);

function normalEquations(
	{ law, design, failures, size }: RegressionInput,
	etas: readonly number[]
) {
	const width = design[0]?.length ?? 0;
	const information = Array.from({ length: width }, () => new Array<number>(width).fill(0));
	const right = new Array<number>(width).fill(0);
	design.forEach((row, i) => {
		const n = size[i] ?? 0;
		const eta = etas[i] ?? 0;
		const mean = meanOf(law, eta);
		const slope = law === 'logistic' ? mean * (1 - mean) : mean;
		const weight = n * slope;
		if (!(weight > 0)) return;
		const working = eta + ((failures[i] ?? 0) / n - mean) / slope;
		for (let a = 0; a < width; a++) {
			const x = row[a] ?? 0;
			if (x === 0) continue;
			right[a] = (right[a] ?? 0) + weight * x * working;
			const line = information[a];
			if (line)
				for (let b = 0; b < width; b++) line[b] = (line[b] ?? 0) + weight * x * (row[b] ?? 0);
		}
	});
	return { information, right };
}

function devianceOf({ law, failures, size }: RegressionInput, etas: readonly number[]): number {
	return etas.reduce((sum, eta, i) => {
		const [y, n] = [failures[i] ?? 0, size[i] ?? 0];
		const mean = meanOf(law, eta) * n;
		const over = times(y, Math.log(y / mean));
		const rest = law === 'logistic' ? times(n - y, Math.log((n - y) / (n - mean))) : mean - y;
		return sum + 2 * (over + rest);
	}, 0);
}
