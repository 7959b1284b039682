import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { goOnSteadily, JUMP_MS, jumpWords, setAheadMs } from './steady-time';

const HOUR_MS = 3_600_000;
const at = (monoMs: number, setMs = 0) => ({ monoMs, wallMs: 1_000_000 + monoMs + setMs });
const start = { baseMs: 1_000_000, saidMs: 0 };

describe('steady time', () => {
	it('is the clock of the machine while that is only led', () => {
		expect(setAheadMs(at(5000, 400), start.baseMs)).toBe(0);
		expect(goOnSteadily(at(5000, 400), start, true)).toEqual({
			baseMs: 1_000_400,
			saidMs: 0,
			sayMs: null
		});
		expect(goOnSteadily(at(5000, 30), start, true).baseMs).toBe(start.baseMs);
	});

	it('goes on through a clock that is set, says it once, and once more when it is set back', () => {
		const forward = goOnSteadily(at(5000, HOUR_MS), start, true);
		expect(forward).toEqual({ baseMs: 1_000_000, saidMs: HOUR_MS, sayMs: HOUR_MS });
		expect(setAheadMs(at(6000, HOUR_MS), forward.baseMs)).toBe(HOUR_MS);
		expect(goOnSteadily(at(6000, HOUR_MS), forward, true).sayMs).toBeNull();
		const back = goOnSteadily(at(7000, -HOUR_MS), forward, true);
		expect(back).toMatchObject({ sayMs: -HOUR_MS, baseMs: 1_000_000 });
		expect(goOnSteadily(at(8000), back, true)).toMatchObject({ saidMs: 0, sayMs: null });
	});

	it('takes over a clock that was set as soon as nothing is counted on it', () => {
		expect(goOnSteadily(at(5000, HOUR_MS), { ...start, saidMs: HOUR_MS }, false)).toEqual({
			baseMs: 1_000_000 + HOUR_MS,
			saidMs: 0,
			sayMs: null
		});
	});

	it('never jumps by a second or more while something is counted, however the clock is set', () => {
		const sets = fc.array(fc.integer({ min: -2 * HOUR_MS, max: 2 * HOUR_MS }), { maxLength: 30 });
		fc.assert(
			fc.property(sets, (jumps) => {
				let kept: { baseMs: number; saidMs: number } = start;
				let last = 1_000_000;
				jumps.forEach((set, i) => {
					const clocks = at((i + 1) * 500, set);
					kept = goOnSteadily(clocks, kept, true);
					const steady = clocks.wallMs - setAheadMs(clocks, kept.baseMs);
					expect(Math.abs(steady - last - 500)).toBeLessThan(2 * JUMP_MS);
					last = steady;
				});
			})
		);
	});

	it('is said in words', () => {
		expect(jumpWords(HOUR_MS)).toBe('1 h forward');
		expect(jumpWords(-HOUR_MS - 120_000)).toBe('1 h 2 min back');
		expect(jumpWords(4200)).toBe('4 s forward');
	});
});
