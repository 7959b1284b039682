import { z } from 'zod';
import { runAgain } from '$lib/server/inspection/again';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({ id: clientId });

/** Where answers that this run did not take can be given again. */
export const POST = (event) =>
	api(async () =>
		runAgain(contextOf(event), {
			...parse(body, await jsonBody(event.request)),
			runId: parse(clientId, event.params.id)
		})
	);
