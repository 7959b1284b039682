import { setTimeout as pause } from 'node:timers/promises';
import { asRefusal } from '../kernel/refusal.ts';

/**
 * Server-sent events from a source that is asked again and again until its last or until the listener has gone.
 * @param next what is said now, empty for nothing, and whether it is the last
 */
export function eventStream(
	next: () => Promise<{ text: string; last: boolean }>,
	everyMs: number
): Response {
	const words = new TextEncoder();
	let first = true;
	const stream = new ReadableStream<Uint8Array>({
		async pull(out) {
			try {
				if (!first) await pause(everyMs);
				first = false;
				const { text, last } = await next();
				out.enqueue(words.encode(text || ': waiting\n\n'));
				if (last) out.close();
			} catch (error) {
				// The page connects anew by itself.
				if (asRefusal(error)) out.close();
				else out.error(error);
			}
		}
	});
	return new Response(stream, {
		headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }
	});
}
