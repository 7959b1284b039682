import { baBench, baReading } from '$lib/server/ba-bench';
import { eventStream } from '$lib/server/event-stream';
import { contextOf, page } from '$lib/server/request';

const POLL_MS = 200;

/** What the bench shows, as server-sent events, until the whistle is heard or the set is empty. */
export const GET = (event) =>
	page(async () => {
		contextOf(event);
		const address = baBench();
		return eventStream(async () => {
			const reading = await baReading(address);
			const last = reading.whistleBar !== null || reading.highBar === 0;
			return { text: `${last ? 'event: ended\n' : ''}data: ${JSON.stringify(reading)}\n\n`, last };
		}, POLL_MS);
	});
