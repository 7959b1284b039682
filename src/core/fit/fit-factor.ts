import type { RuleSet } from '../data/substance.ts';
import { commonPractice, InputError, published, type Reason, type Verdict } from '../verdict.ts';

/** How much of the face a mask covers, which its pass level goes by. */
export const FIT_MASKS = ['half', 'full'] as const;
export type FitMask = (typeof FIT_MASKS)[number];

/** Least overall factor. Published: 29 CFR 1910.134 app. A (US), HSE INDG479 (UK); from memory. */
export const FIT_PASS: Record<RuleSet, Record<FitMask, number>> = {
	us: { half: 100, full: 500 },
	uk: { half: 100, full: 2000 }
};
const ORIGIN = {
	us: published('29 CFR 1910.134 appendix A'),
	uk: published('HSE INDG479')
} as const;

/** Highest factor that is believed of a counter where its maker names none. Common practice. */
export const MOST_FACTOR = 10_000;
/** Least particles in the room to begin with, per cm³. Common practice; the maker of the counter decides. */
export const LEAST_AMBIENT_PER_CM3 = 1000;
/** Sums of reciprocals carry rounding in the last bits; it must not decide. */
const ROUNDING = 1e-9;

/** A factor as it is shown: whole, never more than it is. */
export const shownFactor = (factor: number): number => Math.floor(factor * (1 + ROUNDING));

const checkFactor = (factor: number, path: string): void => {
	if (!(factor > 0) || !Number.isFinite(factor))
		throw new InputError(path, 'A fit factor is a number above zero.');
};

/**
 * The factor over some exercises: their harmonic mean, n / Σ(1/f), as one bad exercise lets in what the good ones keep
 * out.
 * @throws InputError at factors, and at factors[i] on what is no factor
 */
export function overallFactor(factors: readonly number[]): number {
	if (factors.length === 0) throw new InputError('factors', 'One exercise at least.');
	factors.forEach((factor, i) => checkFactor(factor, `factors[${i}]`));
	return factors.length / factors.reduce((sum, factor) => sum + 1 / factor, 0);
}

/**
 * Whether a fit test is passed, on unrounded factors: the overall one, and under the UK pack each exercise as well.
 * @param factors of the exercises that count
 * @throws InputError at factors
 */
export function judgeFit(
	factors: readonly number[],
	mask: FitMask,
	ruleSet: RuleSet
): Verdict<'pass' | 'fail'> & { overall: number } {
	const overall = overallFactor(factors);
	const limit = FIT_PASS[ruleSet][mask];
	const origin = ORIGIN[ruleSet];
	const holds = (value: number) => value >= limit * (1 - ROUNDING);
	const shown = (value: number) => Number(value.toPrecision(4));
	const reasons: Reason[] = [
		{
			rule: 'fit.overall',
			text: `${shown(overall)} overall; ${limit} at least for a ${mask === 'half' ? 'half mask' : 'full-face mask'}.`,
			origin,
			limit,
			value: overall,
			margin: overall - limit
		}
	];
	let passed = holds(overall);
	if (ruleSet === 'uk') {
		const lowest = Math.min(...factors);
		passed = passed && holds(lowest);
		reasons.push({
			rule: 'fit.exercise',
			text: `${shown(lowest)} at the lowest exercise, number ${factors.indexOf(lowest) + 1}; each has to reach ${limit}.`,
			origin,
			limit,
			value: lowest,
			margin: lowest - limit
		});
	}
	return { overall, outcome: passed ? 'pass' : 'fail', reasons };
}

/** What a particle counter measured of one exercise, per cm³. */
export interface ExerciseCounts {
	ambientBefore: number;
	ambientAfter: number;
	inMask: number;
}

/**
 * The factor of one exercise: the mean of the room before and after over the mean in the mask, up to where the counter
 * can tell.
 * @param most highest factor that the counter can tell
 * @throws InputError at the count that cannot be
 */
export function exerciseFactor(
	{ ambientBefore, ambientAfter, inMask }: ExerciseCounts,
	most = MOST_FACTOR
): { factor: number; capped: boolean } {
	for (const [path, value] of [
		['ambientBefore', ambientBefore],
		['ambientAfter', ambientAfter]
	] as const)
		if (!(value > 0) || !Number.isFinite(value))
			throw new InputError(
				path,
				'The counter found nothing in the room: look at its tube and its alcohol, then begin the exercise again.'
			);
	if (!(inMask >= 0) || !Number.isFinite(inMask))
		throw new InputError('inMask', 'A count is a number, zero or more.');
	const ambient = (ambientBefore + ambientAfter) / 2;
	const factor = inMask === 0 ? Infinity : ambient / inMask;
	return factor >= most ? { factor: most, capped: true } : { factor, capped: false };
}

/** Whether there are enough particles in the room to measure by. @param least per cm³, of the maker of the counter */
export function judgeAmbient(
	perCm3: number,
	least = LEAST_AMBIENT_PER_CM3
): Verdict<'enough' | 'too few'> {
	if (!(perCm3 >= 0) || !Number.isFinite(perCm3))
		throw new InputError('perCm3', 'A count is a number, zero or more.');
	const enough = perCm3 >= least;
	return {
		outcome: enough ? 'enough' : 'too few',
		reasons: [
			{
				rule: 'fit.ambient',
				text: enough
					? `${Math.round(perCm3)} particles in each cm³ of the room; ${least} at least.`
					: `${Math.round(perCm3)} particles in each cm³ of the room, ${least} at least: light the particle generator or a candle, let it spread for some minutes, count again.`,
				origin: commonPractice('the maker of the counter decides'),
				limit: least,
				value: perCm3,
				unit: '1/cm³',
				margin: perCm3 - least
			}
		]
	};
}
