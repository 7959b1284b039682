import { gate } from '$lib/server/handout/hand-out';
import { askedBody } from '$lib/server/web/counter-requests';
import { api, contextOf, jsonBody, parse } from '$lib/server/web/request';

/** What the gate says of a hand-out that is being put together. */
export const POST = (event) =>
	api(async () => gate(contextOf(event), parse(askedBody, await jsonBody(event.request))));
