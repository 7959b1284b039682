import { setTimeout as pause } from 'node:timers/promises';
import type { Client } from './writers.ts';

/** Without a word for so long the stream counts as gone. */
const SILENT_MS = 8000;

/** Watches the time that the board counts on, past the networks, and compares it with what passed here. */
export function watchBoard(client: () => Client, over: () => boolean) {
	const seen = { words: 0, worstMs: 0, longestSilenceMs: 0 };
	let last: { now: number; at: number } | undefined;
	const hear = (line: string) => {
		const { now } = JSON.parse(line) as { now: number };
		const at = performance.now();
		if (last) {
			seen.worstMs = Math.max(seen.worstMs, Math.abs(now - last.now - (at - last.at)));
			seen.longestSilenceMs = Math.max(seen.longestSilenceMs, at - last.at);
		}
		last = { now, at };
		seen.words++;
	};
	const listen = async () => {
		const { address, cookie } = client();
		const gone = new AbortController();
		let timer = setTimeout(() => gone.abort(), SILENT_MS);
		try {
			const response = await fetch(`${address}/api/board/events`, {
				headers: { cookie },
				signal: gone.signal
			});
			let text = '';
			const reader = response.body?.getReader();
			for (;;) {
				const part = await reader?.read();
				if (!part || part.done) break;
				clearTimeout(timer);
				timer = setTimeout(() => gone.abort(), SILENT_MS);
				text += Buffer.from(part.value).toString('utf8');
				const events = text.split('\n\n');
				text = events.pop() ?? '';
				for (const event of events) if (event.startsWith('data: ')) hear(event.slice(6));
				if (over()) gone.abort();
			}
		} catch {
			// It comes back.
		} finally {
			clearTimeout(timer);
		}
	};
	const watching = (async () => {
		while (!over()) {
			await listen();
			await pause(200);
		}
	})();
	return { seen, watching };
}
