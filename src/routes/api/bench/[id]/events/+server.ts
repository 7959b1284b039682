import { z } from 'zod';
import { testSince } from '$lib/server/bench/tests';
import { eventStream } from '$lib/server/web/event-stream';
import { listenerOf } from '$lib/server/web/visits';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

const POLL_MS = 250;
const index = z.coerce.number().int().min(0).catch(0);

/**
 * The readings of a test as they are kept, as server-sent events: each carries those from an index on, so that a
 * listener that was away takes up where it stopped. Only what is in the database is sent.
 */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const id = parse(clientId, event.params.id);
		let from = index.parse(
			event.request.headers.get('last-event-id') ?? event.url.searchParams.get('from') ?? 0
		);
		await testSince(db, id, from);
		return eventStream(
			listenerOf(event),
			async () => {
				const { ended, samples } = await testSince(db, id, from);
				if (samples.length) {
					from += samples.length;
					return { text: `id: ${from}\ndata: ${JSON.stringify(samples)}\n\n`, last: false };
				}
				return { text: ended ? 'event: ended\ndata: {}\n\n' : '', last: ended };
			},
			POLL_MS
		);
	});
