import { setTimeout as pause } from 'node:timers/promises';
import { asRefusal, Refusal } from '../kernel/refusal.ts';

/** Streams that one person may have open, over all their screens. Common practice. */
const MOST_EACH = 24;
/** Streams that one process keeps open. Common practice. */
const MOST_IN_ALL = 400;
/** Whether the listener may still hear it is asked so often; the answer itself is kept for a moment. */
const CHECK_MS = 1000;

const open = new Map<string, number>();
let inAll = 0;

/** Who listens, and whether they still may. */
export interface Listener {
	id: string;
	stillIn: () => Promise<boolean>;
}

/**
 * Server-sent events from a source that is asked again and again until its last, until the listener has gone or may
 * not hear it any more.
 * @param next what is said now, empty for nothing, and whether it is the last
 * @throws Refusal where there are too many already
 */
export function eventStream(
	listener: Listener,
	next: () => Promise<{ text: string; last: boolean }>,
	everyMs: number
): Response {
	const { id, stillIn } = listener;
	const own = open.get(id) ?? 0;
	if (own >= MOST_EACH || inAll >= MOST_IN_ALL)
		throw new Refusal('busy', 'Too many screens listen already. Close some, then look again.');
	open.set(id, own + 1);
	inAll++;
	let counted = true;
	const gone = () => {
		if (!counted) return;
		counted = false;
		inAll--;
		const left = (open.get(id) ?? 1) - 1;
		if (left > 0) open.set(id, left);
		else open.delete(id);
	};
	const words = new TextEncoder();
	let [first, checkedAt] = [true, Date.now()];
	const stream = new ReadableStream<Uint8Array>({
		async pull(out) {
			try {
				if (!first) await pause(everyMs);
				first = false;
				if (Date.now() - checkedAt >= CHECK_MS) {
					checkedAt = Date.now();
					if (!(await stillIn())) {
						out.enqueue(words.encode('event: signed-out\ndata: {}\n\n'));
						gone();
						return out.close();
					}
				}
				const { text, last } = await next();
				out.enqueue(words.encode(text || ': waiting\n\n'));
				if (!last) return;
				gone();
				out.close();
			} catch (error) {
				gone();
				// The page connects anew by itself.
				if (asRefusal(error)) out.close();
				else out.error(error);
			}
		},
		cancel: gone
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }
	});
}
