import { betaProbability, betaQuantile } from '../stats/beta.ts';

/** Tests of a model in a size on some faces. */
export interface FitTally {
	model: string;
	size: string;
	passed: number;
	tested: number;
}

/** How likely somebody passes with a model in a size, and how sure that is. */
export interface PassRate extends FitTally {
	/** Expected share that passes. */
	rate: number;
	/** In 95 of 100 cases it lies between these. */
	lower: number;
	upper: number;
	/** Fewer tests than say anything by themselves. */
	few: boolean;
}

/** How many tests the rate of the whole model counts for beside those of one size. Site default. */
const PRIOR_TESTS = 6;
/** Before any test: as likely as not, and unsure. Common practice (uniform). */
const FLAT = 1;
/** Fewer than that are said to be few. Site default. */
const FEW_TESTS = 10;

/**
 * The pass rates of models by size: each size's own tests, drawn towards the rate of its model as far as they are few
 * (Beta-binomial).
 */
export function passRates(tallies: readonly FitTally[]): PassRate[] {
	return tallies.map((own) => {
		const model = tallies.filter((one) => one.model === own.model);
		const sum = (of: 'passed' | 'tested') => model.reduce((n, one) => n + one[of], 0);
		const rate = (sum('passed') + FLAT) / (sum('tested') + 2 * FLAT);
		const a = own.passed + rate * PRIOR_TESTS;
		const b = own.tested - own.passed + (1 - rate) * PRIOR_TESTS;
		return {
			...own,
			rate: a / (a + b),
			lower: betaQuantile(0.025, a, b),
			upper: betaQuantile(0.975, a, b),
			few: own.tested < FEW_TESTS
		};
	});
}

/** A share as so many in a hundred. Nothing is certain: never all of them. */
export const inHundred = (share: number): number => Math.min(99, Math.round(share * 100));

/** What to try next after a failed test: the likeliest to pass first; what failed already is left out. */
export const nextToTry = (
	rates: readonly PassRate[],
	failed: readonly { model: string; size: string }[]
): PassRate[] =>
	rates
		.filter((one) => !failed.some(({ model, size }) => model === one.model && size === one.size))
		.sort((a, b) => b.rate - a.rate || b.lower - a.lower);

/** The chance that a rate lies below a share, by what is known of it. */
export const chanceBelow = (
	share: number,
	{ passed, tested }: Pick<FitTally, 'passed' | 'tested'>
) => betaProbability(share, passed + FLAT, tested - passed + FLAT);
