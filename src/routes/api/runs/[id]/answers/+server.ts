import { api, contextOf, jsonBody } from '$lib/server/web/request';
import { RUN_REQUESTS } from '$lib/server/web/run-requests';

/** Takes one answer. */
export const POST = (event) =>
	api(async () =>
		RUN_REQUESTS.answers(contextOf(event), event.params.id, await jsonBody(event.request))
	);
