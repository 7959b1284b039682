import { describe, expect, it, vi } from 'vitest';
import { Refusal } from '../kernel/refusal.ts';
import { eventStream } from './event-stream.ts';

let people = 0;
/** Somebody of their own for each stream. */
const here = (stillIn = true) => ({
	id: `person-${people++}`,
	stillIn: () => Promise.resolve(stillIn)
});

/** Everything that a stream says until it ends. */
const hear = (response: Response) => response.text();

describe('server-sent events', () => {
	it('say what there is, keep the line alive when there is nothing, and end with the last', async () => {
		const words = ['data: 1\n\n', '', 'data: 2\n\n', 'event: ended\ndata: {}\n\n'];
		let i = 0;
		const response = eventStream(
			here(),
			() => {
				const text = words[i] ?? '';
				i++;
				return Promise.resolve({ text, last: i === words.length });
			},
			1
		);
		expect(response.headers.get('content-type')).toBe('text/event-stream');
		expect(response.headers.get('cache-control')).toBe('no-store');
		expect(await hear(response)).toBe(
			'data: 1\n\n: waiting\n\ndata: 2\n\nevent: ended\ndata: {}\n\n'
		);
	});

	it('end quietly when the source is away for a while: the page comes back by itself', async () => {
		const response = eventStream(
			here(),
			() => Promise.reject(new Refusal('unavailable', 'The panel is away.')),
			1
		);
		expect(await hear(response)).toBe('');
	});

	it('break where the program is at fault, so that it is not taken for an end', async () => {
		const response = eventStream(here(), () => Promise.reject(new TypeError('no such thing')), 1);
		await expect(hear(response)).rejects.toThrow(/no such thing/);
	});

	it('are not asked for any more once the listener has gone', async () => {
		let asked = 0;
		const response = eventStream(
			here(),
			() => {
				asked++;
				return Promise.resolve({ text: 'data: x\n\n', last: false });
			},
			5
		);
		const reader = response.body?.getReader();
		await reader?.read();
		await reader?.cancel();
		const then = asked;
		await new Promise((resolve) => setTimeout(resolve, 60));
		expect(asked).toBeLessThanOrEqual(then + 1);
	});

	it('end where the listener may not hear them any more', async () => {
		vi.useFakeTimers({ toFake: ['Date'] });
		try {
			const response = eventStream(
				here(false),
				() => Promise.resolve({ text: 'data: x\n\n', last: false }),
				1
			);
			const reader = response.body?.pipeThrough(new TextDecoderStream()).getReader();
			expect((await reader?.read())?.value).toBe('data: x\n\n');
			vi.advanceTimersByTime(1500);
			let said = '';
			for (;;) {
				const next = await reader?.read();
				if (!next || next.done) break;
				said += next.value;
			}
			expect(said).toMatch(/event: signed-out\ndata: \{\}\n\n$/);
		} finally {
			vi.useRealTimers();
		}
	});

	it('are not more for one person than they have screens', async () => {
		const one = here();
		const open = () =>
			eventStream(one, () => Promise.resolve({ text: 'data: x\n\n', last: false }), 1);
		const streams = Array.from({ length: 24 }, open);
		expect(open).toThrow(/Too many screens/);
		await streams[0]?.body?.cancel();
		const another = open();
		await Promise.all([...streams.slice(1), another].map((stream) => stream.body?.cancel()));
	});
});
