import { COUNTER_REQUESTS } from '$lib/server/web/counter-requests';
import { api, contextOf, jsonBody } from '$lib/server/web/request';

export const POST = (event) =>
	api(async () => COUNTER_REQUESTS['return'](contextOf(event), await jsonBody(event.request)));
