import { z } from 'zod';
import { answer } from '$lib/server/inspection/answers';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({
	id: clientId,
	step: z.string().max(60),
	value: z.enum(['good', 'reject', 'not fitted', 'cleared']),
	code: z.string().max(12).nullish(),
	note: z.string().trim().max(500, 'A note has at most 500 characters.').nullish(),
	readings: z
		.object({
			value: z.number('Type a number.').optional(),
			start: z.number('Type a number.').optional(),
			end: z.number('Type a number.').optional(),
			seconds: z.number().nonnegative().optional(),
			clock: z.literal('device').optional()
		})
		.nullish(),
	seen: z.number().int().min(0),
	/** How long it waited on the device; a month at most. */
	heldMs: z.number().min(0).max(2_678_400_000).default(0)
});

export const POST = (event) =>
	api(async () => {
		const given = parse(body, await jsonBody(event.request));
		const runId = parse(clientId, event.params.id);
		return { answers: await answer(contextOf(event), { ...given, runId }) };
	});
