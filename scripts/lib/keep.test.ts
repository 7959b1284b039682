import { afterEach, describe, expect, it, vi } from 'vitest';
import { keepGoing } from './keep.mjs';

describe('what is kept going', () => {
	afterEach(() => void vi.restoreAllMocks());
	const quiet = () => vi.spyOn(process.stdout, 'write').mockImplementation(() => true);
	/** A thing that fails to start so often, and the waits before each start. */
	function thing(failing: number) {
		const waits: number[] = [];
		let [starts, over] = [0, false];
		const ended = keepGoing(
			'The thing',
			() => (++starts <= failing ? Promise.reject(new Error('no room')) : Promise.resolve()),
			{
				over: () => over,
				wait: (ms) => {
					waits.push(ms);
					return Promise.resolve();
				}
			}
		);
		return { ended, waits, starts: () => starts, end: () => (over = true) };
	}

	it('is started again, at once at first and then ever later, for ever', async () => {
		quiet();
		const { ended, waits, starts } = thing(12);
		await ended('1');
		expect(starts()).toBe(13);
		expect(waits).toEqual([
			500, 1000, 2000, 4000, 8000, 16_000, 30_000, 30_000, 30_000, 30_000, 30_000, 30_000, 30_000
		]);
	});

	it('waits longer where it does not last, and begins anew where it did', async () => {
		quiet();
		vi.useFakeTimers({ toFake: ['Date'] });
		try {
			const { ended, waits } = thing(0);
			await ended();
			await ended();
			vi.advanceTimersByTime(61_000);
			await ended();
			expect(waits).toEqual([500, 1000, 500]);
		} finally {
			vi.useRealTimers();
		}
	});

	it('is started once more where it ended while it was being started', async () => {
		quiet();
		let starts = 0;
		const ended: () => Promise<void> = keepGoing(
			'It',
			() => {
				// Killed in the moment in which it came.
				if (++starts === 1) void ended();
				return Promise.resolve();
			},
			{ over: () => false, wait: () => Promise.resolve() }
		);
		await ended();
		expect(starts).toBe(2);
	});

	it('is not started any more once all is over', async () => {
		const said = quiet();
		const { ended, starts, end } = thing(0);
		end();
		await ended();
		expect([starts(), said.mock.calls.length]).toEqual([0, 0]);
	});
});
