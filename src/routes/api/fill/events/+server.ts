import { z } from 'zod';
import { config } from '$lib/server/config';
import { Fault } from '$lib/server/errors';
import { eventStream } from '$lib/server/event-stream';
import { fillNow } from '$lib/server/fills';
import { contextOf, page } from '$lib/server/request';

const POLL_MS = 500;
const index = z.coerce.number().int().min(0).catch(0);

/**
 * What the fill panel shows, as server-sent events; with a fill under way its points from an index on. A listener
 * that was away takes up where it stopped.
 */
export const GET = (event) =>
	page(() => {
		const { db } = contextOf(event);
		const address = config().GREVAN_FILL_PANEL;
		if (!address) throw new Fault('not found', 'No fill panel is connected.');
		let from = index.parse(event.url.searchParams.get('from') ?? 0);
		let fill = event.url.searchParams.get('fill');
		return Promise.resolve(
			eventStream(async () => {
				let now = await fillNow(db, address, from);
				if (now.fillId !== fill) {
					// Another fill has begun: its points are told from the first.
					fill = now.fillId;
					from = 0;
					now = await fillNow(db, address, from);
				}
				const first = from;
				from += now.points.length;
				return { text: `data: ${JSON.stringify({ ...now, first })}\n\n`, last: false };
			}, POLL_MS)
		);
	});
