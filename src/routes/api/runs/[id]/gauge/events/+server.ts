import { baBench, baReading } from '$lib/server/bench/gauge';
import { requireRun } from '$lib/server/inspection/locked-run';
import { eventStream } from '$lib/server/web/event-stream';
import { listenerOf } from '$lib/server/web/visits';
import { sharedPoll } from '$lib/server/web/shared-poll';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

const POLL_MS = 200;

/** What the bench shows, as server-sent events, until the whistle is heard or the set is empty. */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		await requireRun(db, parse(clientId, event.params.id));
		const address = baBench();
		return eventStream(
			listenerOf(event),
			async () => {
				const reading = await sharedPoll(`gauge ${address}`, POLL_MS / 2, () => baReading(address));
				const last = reading.whistleBar !== null || reading.highBar === 0;
				return {
					text: `${last ? 'event: ended\n' : ''}data: ${JSON.stringify(reading)}\n\n`,
					last
				};
			},
			POLL_MS
		);
	});
