import { setTimeout as pause } from 'node:timers/promises';
import { asFault } from './errors.ts';

/**
 * Server-sent events from a source that is asked again and again until it has ended or the listener has gone.
 * @param next the text of the next event, empty for none; undefined: it was the last
 */
export function eventStream(next: () => Promise<string | undefined>, everyMs: number): Response {
	const words = new TextEncoder();
	let first = true;
	const stream = new ReadableStream<Uint8Array>({
		async pull(out) {
			try {
				if (!first) await pause(everyMs);
				first = false;
				const text = await next();
				if (text === undefined) out.close();
				else out.enqueue(words.encode(text || ': waiting\n\n'));
			} catch (error) {
				// The page connects anew by itself.
				if (asFault(error)) out.close();
				else out.error(error);
			}
		}
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }
	});
}
