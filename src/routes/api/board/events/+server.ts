import { boardFeed, boardTime } from '$lib/server/air/board';
import { eventStream } from '$lib/server/web/event-stream';
import { listenerOf, noteUse } from '$lib/server/web/visits';
import { contextOf, page } from '$lib/server/web/request';

const POLL_MS = 200;
/** A screen is told the server's time at least this often, though nothing was written. */
const CLOCK_MS = 5000;

/** The entry board as server-sent events: whole, each time that anything was written, with the server's time. */
export const GET = (event) =>
	page(() => {
		const context = contextOf(event);
		const { db } = context;
		const feed = boardFeed(db);
		let [sent, at] = ['', -CLOCK_MS];
		return Promise.resolve(
			eventStream(
				listenerOf(event),
				async () => {
					const board = await feed.load();
					// Whoever watches over a team is at work, though they touch nothing for an hour.
					if (board.teams.length) await noteUse(db, event.locals);
					const passed = performance.now();
					if (board.version === sent && passed - at < CLOCK_MS) return { text: '', last: false };
					[sent, at] = [board.version, passed];
					const time = await boardTime(context);
					return { text: `data: ${JSON.stringify({ ...board, ...time })}\n\n`, last: false };
				},
				POLL_MS
			)
		);
	});
