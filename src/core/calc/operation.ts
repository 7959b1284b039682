import { z } from 'zod';
import { CONCENTRATION_UNITS } from '../units/concentration.ts';

/** One operation of the calculation interface: schemas in and out, and what it does. */
export interface Operation<In extends z.ZodType = z.ZodType, Out extends z.ZodType = z.ZodType> {
	name: string;
	description: string;
	input: In;
	output: Out;
	run: (input: z.output<In>) => z.input<Out>;
}

/** Keeps the types of input, output and function together. */
export function operation<In extends z.ZodType, Out extends z.ZodType>(
	definition: Operation<In, Out>
): Operation {
	return definition as unknown as Operation;
}

/**
 * How much one question may hold, so that none keeps everybody else waiting. Far beyond any real task. Site default,
 * without a published source.
 */
export const MOST = {
	contaminants: 30,
	rules: 100,
	samples: 20_000,
	vessels: 40,
	/** Exercises of a fit test. */
	factors: 100,
	parts: 200,
	/** Wearers kitted out at once, and sets that they choose from. */
	team: 100,
	sets: 1000,
	/** Jobs of a plan, its days, minutes of one of them, things of a kind, days until a delivery. */
	jobs: 20_000,
	planDays: 1000,
	minutes: 1_000_000,
	fleet: 100_000,
	leadDays: 3660,
	months: 1200,
	days: 36_500,
	/** Lives of parts, the longest of them in any unit, groups compared, trials of one. */
	lives: 20_000,
	duration: 1e9,
	groups: 1000,
	trials: 1e9,
	/** Characters of a name. */
	text: 200
} as const;

/** A list of so many at most. */
export const listOf = <T extends z.ZodType>(of: T, most: number) =>
	z.array(of).max(most, `At most ${most} of these in one question.`);

/** A name or a word. */
export const words = z.string().max(MOST.text, `At most ${MOST.text} characters.`);

/** A located fault of an input. */
export interface CalcIssue {
	path: string;
	message: string;
}

export interface CalcError {
	error: { code: 'invalid_input' | 'unknown_operation'; issues: CalcIssue[] };
}

export const unit = z.enum(['ppm', 'mg/m3']);
export const ruleSet = z.enum(['us', 'uk']);
export const amount = z.strictObject({
	value: z.number().nonnegative(),
	unit: z.enum(CONCENTRATION_UNITS)
});

/** One reason as the interface gives it. */
export const reason = z.object({
	rule: z.string(),
	source: z.string(),
	text: z.string(),
	limit: z.number().optional(),
	value: z.number().optional(),
	unit: z.string().optional(),
	margin: z.number().optional()
});
