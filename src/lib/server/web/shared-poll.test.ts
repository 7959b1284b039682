import { describe, expect, it, vi } from 'vitest';
import { sharedPoll } from './shared-poll.ts';

describe('a poll that listeners share', () => {
	it('asks once for all who wait, and anew when the answer is old', async () => {
		vi.useFakeTimers();
		try {
			const ask = vi.fn(() => Promise.resolve(ask.mock.calls.length));
			const both = await Promise.all([sharedPoll('a', 100, ask), sharedPoll('a', 100, ask)]);
			expect(both).toEqual([1, 1]);
			vi.advanceTimersByTime(99);
			expect(await sharedPoll('a', 100, ask)).toBe(1);
			vi.advanceTimersByTime(1);
			expect(await sharedPoll('a', 100, ask)).toBe(2);
		} finally {
			vi.useRealTimers();
		}
	});

	it('keeps names apart, and asks again after a failure', async () => {
		const ask = vi.fn(() => Promise.reject(new Error('away')));
		await expect(sharedPoll('b', 1000, ask)).rejects.toThrow('away');
		await expect(sharedPoll('b', 1000, ask)).rejects.toThrow('away');
		expect(ask).toHaveBeenCalledTimes(2);
		expect(await sharedPoll('c', 1000, () => Promise.resolve('c'))).toBe('c');
	});
});
