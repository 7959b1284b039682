import { baBench, baReading } from '$lib/server/bench/gauge';
import { eventStream } from '$lib/server/web/event-stream';
import { contextOf, page } from '$lib/server/web/request';

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
