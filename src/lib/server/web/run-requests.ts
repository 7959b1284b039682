import { z } from 'zod';
import { reportFound } from '../inspection/again.ts';
import { answer } from '../inspection/answers.ts';
import { signRun } from '../inspection/runs.ts';
import type { Context } from '../kernel/context.ts';
import { clientId, parse } from './request.ts';

/** How long something waited on the device before it was sent; a month at most. */
const heldMs = z.number().min(0).max(2_678_400_000).default(0);
const note = z.string().trim().max(500, 'A note has at most 500 characters.').nullish();

/** What was read at a step. */
export const readingsBody = z.object({
	value: z.number('Type a number.').optional(),
	start: z.number('Type a number.').optional(),
	end: z.number('Type a number.').optional(),
	seconds: z.number().nonnegative().optional(),
	clock: z.literal('device').optional()
});

const answerBody = z.object({
	id: clientId,
	step: z.string().max(60),
	value: z.enum(['good', 'reject', 'not fitted', 'cleared']),
	code: z.string().max(12).nullish(),
	note,
	readings: readingsBody.nullish(),
	seen: z.number().int().min(0),
	heldMs
});
const signBody = z.object({ id: clientId });
const faultBody = z.object({
	id: clientId,
	step: z.string().max(60),
	code: z.string().max(12),
	note
});

/** What a run takes from a page: by the last part of its address. */
export const RUN_REQUESTS = {
	/** An answer to a step; gives all answers of the run. */
	async answers(context: Context, run: string, body: unknown) {
		const runId = parse(clientId, run);
		return { answers: await answer(context, { ...parse(answerBody, body), runId }) };
	},
	/** The signature under a finished inspection. */
	async sign(context: Context, run: string, body: unknown) {
		const { id: requestId } = parse(signBody, body);
		await signRun(context, { requestId, runId: parse(clientId, run) });
		return { signed: true };
	},
	/** A fault that was found at a step of a run that does not take it any more. */
	async faults(context: Context, run: string, body: unknown) {
		const given = parse(faultBody, body);
		const runId = parse(clientId, run);
		return reportFound(context, { ...given, note: given.note ?? null, runId });
	}
};
export type RunRequest = keyof typeof RUN_REQUESTS;
