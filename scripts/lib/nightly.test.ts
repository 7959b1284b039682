import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { backupHour, backUpNightly, lastDue } from './nightly.mjs';

describe('when a backup was due last', () => {
	it('is today after the hour, yesterday before it', () => {
		expect(lastDue(new Date(2026, 11, 1, 3), 2)).toEqual(new Date(2026, 11, 1, 2));
		expect(lastDue(new Date(2026, 11, 1, 1, 59), 2)).toEqual(new Date(2026, 10, 30, 2));
		expect(lastDue(new Date(2026, 11, 1, 2), 2)).toEqual(new Date(2026, 11, 1, 2));
	});
	it('is at two o’clock unless another hour, or none, is given', () => {
		expect([undefined, '4', '0', 'off', '25', 'noon'].map(backupHour)).toEqual([
			2,
			4,
			0,
			undefined,
			2,
			2
		]);
	});
});

describe('each night', () => {
	beforeEach(() => void vi.useFakeTimers());
	afterEach(() => void vi.useRealTimers());

	it('takes one that is due, once, and none while one is newer', async () => {
		let now = new Date(2026, 11, 1, 12);
		let newest: Date | undefined = new Date(2026, 10, 30, 12);
		let taken = 0;
		const stop = backUpNightly(
			{},
			{
				hour: 2,
				newest: () => newest,
				now: () => now,
				take: () => {
					taken++;
					newest = now;
					return Promise.resolve({ code: 0, output: '' });
				}
			}
		);
		await vi.advanceTimersByTimeAsync(60 * 60_000);
		expect(taken).toBe(1);
		now = new Date(2026, 11, 2, 1, 50);
		await vi.advanceTimersByTimeAsync(60 * 60_000);
		expect(taken).toBe(1);
		now = new Date(2026, 11, 2, 2, 1);
		await vi.advanceTimersByTimeAsync(60 * 60_000);
		expect(taken).toBe(2);
		stop();
		now = new Date(2026, 11, 5);
		await vi.advanceTimersByTimeAsync(60 * 60_000);
		expect(taken).toBe(2);
	});

	it('is tried again where it could not be taken', async () => {
		let tries = 0;
		const stop = backUpNightly(
			{},
			{
				hour: 2,
				newest: () => undefined,
				now: () => new Date(2026, 11, 1, 12),
				take: () => {
					tries++;
					return Promise.resolve({ code: 1, output: 'disk full' });
				}
			}
		);
		await vi.advanceTimersByTimeAsync(16 * 60_000);
		expect(tries).toBe(3);
		stop();
	});
});
