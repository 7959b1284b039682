import { z } from 'zod';
import { baBench, gaugeStep } from '$lib/server/bench/gauge';
import { api, clientId, contextOf, jsonBody, parse, requested } from '$lib/server/web/request';

const body = z.object({
	...requested,
	step: z.string().max(60),
	connect: z.boolean().default(false)
});

/** Reads the bench for a step. */
export const POST = (event) =>
	api(async () => {
		const given = parse(body, await jsonBody(event.request));
		const runId = parse(clientId, event.params.id);
		return gaugeStep(contextOf(event), baBench(), { ...given, runId });
	});
