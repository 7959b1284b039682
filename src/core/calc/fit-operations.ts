import { z } from 'zod';
import { FIT_MASKS, judgeFit } from '../fit/fit-factor.ts';
import { listOf, MOST, operation, reason, ruleSet } from './operation.ts';
import { calcReasons } from './reasons.ts';

const fitFactor = operation({
	name: 'fit-factor',
	description:
		'Overall fit factor of the exercises that count (harmonic mean) and whether the test is passed.',
	input: z.strictObject({
		factors: listOf(z.number(), MOST.factors),
		mask: z.enum(FIT_MASKS),
		ruleSet
	}),
	output: z.object({
		overall: z.number(),
		outcome: z.enum(['pass', 'fail']),
		reasons: z.array(reason)
	}),
	run({ factors, mask, ruleSet: pack }) {
		const { overall, outcome, reasons } = judgeFit(factors, mask, pack);
		return { overall, outcome, reasons: calcReasons(reasons) };
	}
});

export const FIT_OPERATIONS = [fitFactor];
