import { describe, expect, it } from 'vitest';
import { Refusal } from '../kernel/refusal.ts';
import { eventStream } from './event-stream.ts';

/** Everything that a stream says until it ends. */
const hear = (response: Response) => response.text();

describe('server-sent events', () => {
	it('say what there is, keep the line alive when there is nothing, and end with the last', async () => {
		const words = ['data: 1\n\n', '', 'data: 2\n\n', 'event: ended\ndata: {}\n\n'];
		let i = 0;
		const response = eventStream(() => {
			const text = words[i] ?? '';
			i++;
			return Promise.resolve({ text, last: i === words.length });
		}, 1);
		expect(response.headers.get('content-type')).toBe('text/event-stream');
		expect(response.headers.get('cache-control')).toBe('no-store');
		expect(await hear(response)).toBe(
			'data: 1\n\n: waiting\n\ndata: 2\n\nevent: ended\ndata: {}\n\n'
		);
	});

	it('end quietly when the source is away for a while: the page comes back by itself', async () => {
		const response = eventStream(
			() => Promise.reject(new Refusal('unavailable', 'The panel is away.')),
			1
		);
		expect(await hear(response)).toBe('');
	});

	it('break where the program is at fault, so that it is not taken for an end', async () => {
		const response = eventStream(() => Promise.reject(new TypeError('no such thing')), 1);
		await expect(hear(response)).rejects.toThrow(/no such thing/);
	});

	it('are not asked for any more once the listener has gone', async () => {
		let asked = 0;
		const response = eventStream(() => {
			asked++;
			return Promise.resolve({ text: 'data: x\n\n', last: false });
		}, 5);
		const reader = response.body?.getReader();
		await reader?.read();
		await reader?.cancel();
		const then = asked;
		await new Promise((resolve) => setTimeout(resolve, 60));
		expect(asked).toBeLessThanOrEqual(then + 1);
	});
});
