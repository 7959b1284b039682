import { z } from 'zod';
import { compareRates } from '../stats/compare-rates.ts';
import { kaplanMeier } from '../survival/kaplan-meier.ts';
import { fitWeibull } from '../survival/weibull.ts';
import { listOf, MOST, operation, reason, words } from './operation.ts';
import { calcReasons } from './reasons.ts';

const survival = operation({
	name: 'survival',
	description:
		'The share of lives longer than each duration, those cut short counted as such, and the Weibull law that fits.',
	input: z.strictObject({
		lives: listOf(
			z.strictObject({
				duration: z.number().nonnegative().max(MOST.duration),
				failed: z.boolean()
			}),
			MOST.lives
		).min(1, 'Give one life at least.')
	}),
	output: z.object({
		curve: z.array(
			z.object({
				duration: z.number(),
				atRisk: z.number(),
				failed: z.number(),
				survival: z.number(),
				lower: z.number(),
				upper: z.number()
			})
		),
		median: z.number().optional(),
		weibull: z.object({ shape: z.number(), scale: z.number() }).optional()
	}),
	run({ lives }) {
		const { curve, median } = kaplanMeier(lives);
		const law = fitWeibull(lives);
		return {
			curve,
			...(median === null ? {} : { median }),
			...(law ? { weibull: { shape: law.shape, scale: law.scale } } : {})
		};
	}
});

const count = z.number().int().nonnegative().max(MOST.trials);

const compareRatesOperation = operation({
	name: 'compare-rates',
	description: 'Rates of failure of several groups, and whether they differ by more than chance.',
	input: z.strictObject({
		groups: listOf(
			z.strictObject({ name: words.min(1), failures: count, trials: count }),
			MOST.groups
		)
	}),
	output: z.object({
		rates: z.array(
			z.object({ name: z.string(), rate: z.number(), lower: z.number(), upper: z.number() })
		),
		pValue: z.number(),
		reasons: z.array(reason)
	}),
	run({ groups }) {
		const { rates, pValue, reasons } = compareRates(groups);
		return {
			rates: rates.map(({ name, rate, lower, upper }) => ({ name, rate, lower, upper })),
			pValue,
			reasons: calcReasons(reasons)
		};
	}
});

/** Operations on what the record teaches. */
export const RECORD_OPERATIONS = [survival, compareRatesOperation];
