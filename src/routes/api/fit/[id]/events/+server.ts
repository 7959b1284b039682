import { watchSession } from '$lib/server/people/fit-session';
import { readingsStream } from '$lib/server/web/readings-stream';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

const POLL_MS = 300;

/** The readings of a fit test as they are kept, as server-sent events. */
export const GET = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		return readingsStream(event, POLL_MS, await watchSession(contextOf(event), id));
	});
