import { z } from 'zod';
import { testSince } from '$lib/server/bench';
import { asFault } from '$lib/server/errors';
import { clientId, contextOf, page, parse } from '$lib/server/request';

const POLL_MS = 250;
const index = z.coerce.number().int().min(0).catch(0);

/**
 * The readings of a test as they are kept, as server-sent events: each carries those from an index on, so that a
 * listener that was away takes up where it stopped. Only what is in the database is sent.
 */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const id = parse(clientId, event.params.id);
		let from = index.parse(
			event.request.headers.get('last-event-id') ?? event.url.searchParams.get('from') ?? 0
		);
		await testSince(db, id, from);
		let gone = false;
		const words = new TextEncoder();
		const stream = new ReadableStream<Uint8Array>({
			async start(out) {
				const say = (text: string) => out.enqueue(words.encode(text));
				while (!gone) {
					try {
						const { ended, samples } = await testSince(db, id, from);
						if (samples.length) {
							from += samples.length;
							say(`id: ${from}\ndata: ${JSON.stringify(samples)}\n\n`);
						} else if (ended) {
							say('event: ended\ndata: {}\n\n');
							break;
						} else say(': waiting\n\n');
					} catch (error) {
						// The page connects anew by itself.
						if (!gone && !asFault(error)) out.error(error);
						break;
					}
					await new Promise((resolve) => setTimeout(resolve, POLL_MS));
				}
				if (!gone) out.close();
			},
			cancel() {
				gone = true;
			}
		});
		return new Response(stream, {
			headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' }
		});
	});
