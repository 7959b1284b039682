import type { RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { eventStream } from './event-stream.ts';
import { listenerOf } from './visits.ts';

const index = z.coerce.number().int().min(0).catch(0);

/**
 * The readings of an instrument as they are kept, as server-sent events: each carries those from an index on, so that a
 * listener that was away takes up where it stopped. Only what is in the database is sent.
 * @param since whether it has ended, and what was kept from an index on
 */
export function readingsStream(
	event: RequestEvent,
	pollMs: number,
	since: (from: number) => Promise<{ ended: boolean; fresh: readonly unknown[] }>
): Response {
	let from = index.parse(
		event.request.headers.get('last-event-id') ?? event.url.searchParams.get('from') ?? 0
	);
	return eventStream(
		listenerOf(event),
		async () => {
			const { ended, fresh } = await since(from);
			if (fresh.length) {
				from += fresh.length;
				return { text: `id: ${from}\ndata: ${JSON.stringify(fresh)}\n\n`, last: false };
			}
			return { text: ended ? 'event: ended\ndata: {}\n\n' : '', last: ended };
		},
		pollMs
	);
}
