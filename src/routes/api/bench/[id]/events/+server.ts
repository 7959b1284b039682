import { testSince } from '$lib/server/bench/tests';
import { readingsStream } from '$lib/server/web/readings-stream';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

const POLL_MS = 250;

/** The readings of a bench test as they are kept, as server-sent events. */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const id = parse(clientId, event.params.id);
		await testSince(db, id, 0);
		return readingsStream(event, POLL_MS, async (from) => {
			const { ended, samples } = await testSince(db, id, from);
			return { ended, fresh: samples };
		});
	});
