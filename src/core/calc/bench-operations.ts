import { z } from 'zod';
import { holdTest, whistleTest } from '../bench/breathing-apparatus.ts';
import { pressureTest } from '../bench/pressure-test.ts';
import { recipeOf } from '../bench/recipes.ts';
import { judgeTrace } from '../bench/trace.ts';
import { listOf, MOST, operation, reason } from './operation.ts';
import { calcReasons } from './reasons.ts';

const outcome = z.enum(['pass', 'pass, marginal', 'fail', 'repeat']);
const recipe = z.enum(['suit-en', 'suit-us', 'suit-us-general', 'mask-full-face']);
const reasons = z.array(reason);

const hold = operation({
	name: 'hold-test',
	description: 'Judges the one-minute hold of a closed set of breathing apparatus.',
	input: z.strictObject({
		startBar: z.number(),
		endBar: z.number(),
		seconds: z.number(),
		ratedBar: z.number().optional(),
		limitBar: z.number().optional(),
		limitIncluded: z.boolean().optional()
	}),
	output: z.object({ dropBar: z.number(), outcome, reasons }),
	run({ startBar, endBar, seconds, ...rule }) {
		const result = holdTest(startBar, endBar, seconds, rule);
		return { ...result, reasons: calcReasons(result.reasons) };
	}
});

const whistle = operation({
	name: 'whistle',
	description: 'Judges the pressure at which the warning whistle of a set starts.',
	input: z.strictObject({ bar: z.number() }),
	output: z.object({ outcome, reasons }),
	run({ bar }) {
		const result = whistleTest(bar);
		return { outcome: result.outcome, reasons: calcReasons(result.reasons) };
	}
});

const pressure = operation({
	name: 'pressure-test',
	description:
		'Judges a pressure test of a suit or mask by its start and end, temperature and barometer taken out.',
	input: z.strictObject({
		recipe,
		start: z.number(),
		end: z.number(),
		uncertaintyPa: z.number().nonnegative().optional(),
		temperatureChangeK: z.number().optional(),
		barometerChangePa: z.number().optional()
	}),
	output: z.object({ outcome, correctedEnd: z.number(), reasons }),
	run({ recipe: key, start, end, ...more }) {
		const result = pressureTest(recipeOf(key), { startPa: start, endPa: end, ...more });
		return {
			outcome: result.outcome,
			correctedEnd: result.correctedEndPa,
			reasons: calcReasons(result.reasons)
		};
	}
});

const trace = operation({
	name: 'trace',
	description: 'Judges a whole trace of a pressure test and gives the steady leak behind it.',
	input: z.strictObject({
		recipe,
		samples: listOf(
			z.strictObject({
				s: z.number(),
				pa: z.number(),
				temperatureC: z.number().optional(),
				barometerPa: z.number().optional()
			}),
			MOST.samples
		),
		uncertaintyPa: z.number().nonnegative().optional(),
		volumeL: z.number().positive().optional()
	}),
	output: z.object({
		outcome,
		leakPaPerMin: z.number(),
		leakMlPerMin: z.number().optional(),
		correctedEnd: z.number(),
		reasons
	}),
	run({ recipe: key, samples, ...options }) {
		const result = judgeTrace(recipeOf(key), samples, options);
		return {
			outcome: result.outcome,
			leakPaPerMin: result.leakPaPerMin,
			...(result.leakMlPerMin === undefined ? {} : { leakMlPerMin: result.leakMlPerMin }),
			correctedEnd: result.correctedEndPa,
			reasons: calcReasons(result.reasons)
		};
	}
});

/** Operations of the bench. */
export const BENCH_OPERATIONS = [hold, whistle, pressure, trace];
