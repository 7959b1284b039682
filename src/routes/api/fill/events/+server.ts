import { fillNow } from '$lib/server/air/fill-room';
import { Refusal } from '$lib/server/kernel/refusal';
import { config } from '$lib/server/web/config';
import { eventStream } from '$lib/server/web/event-stream';
import { listenerOf } from '$lib/server/web/visits';
import { sharedPoll } from '$lib/server/web/shared-poll';
import { contextOf, page } from '$lib/server/web/request';

const POLL_MS = 500;

/**
 * What the fill panel shows, as server-sent events; with a fill under way each of its points once, all of them again
 * for a listener that was away.
 */
export const GET = (event) =>
	page(() => {
		const { db } = contextOf(event);
		const address = config().GREVAN_FILL_PANEL;
		if (!address) throw new Refusal('not found', 'No fill panel is connected.');
		/** Listeners that are as far as one another share what is asked of the panel. */
		const panel = (since: number) =>
			sharedPoll(`panel ${address} ${since}`, POLL_MS / 2, () => fillNow(db, address, since));
		let from = 0;
		let fill: string | null = null;
		return Promise.resolve(
			eventStream(
				listenerOf(event),
				async () => {
					let now = await panel(from);
					if (now.fillId !== fill) {
						// Another fill has begun: its points are told from the first.
						fill = now.fillId;
						from = 0;
						now = await panel(from);
					}
					const first = from;
					from += now.points.length;
					return { text: `data: ${JSON.stringify({ ...now, first })}\n\n`, last: false };
				},
				POLL_MS
			)
		);
	});
