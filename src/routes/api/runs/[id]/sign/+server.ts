import { api, contextOf, jsonBody } from '$lib/server/web/request';
import { RUN_REQUESTS } from '$lib/server/web/run-requests';

/** Signs a finished inspection. */
export const POST = (event) =>
	api(async () =>
		RUN_REQUESTS.sign(contextOf(event), event.params.id, await jsonBody(event.request))
	);
