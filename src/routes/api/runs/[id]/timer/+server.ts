import { z } from 'zod';
import { startTimer } from '$lib/server/inspection/timers';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({
	id: clientId,
	step: z.string().max(60),
	start: z.number('Type the pressure before the hold.')
});

/** Starts the clock of a hold. */
export const POST = (event) =>
	api(async () => {
		const given = parse(body, await jsonBody(event.request));
		await startTimer(contextOf(event), { ...given, runId: event.params.id });
		return { started: true };
	});
