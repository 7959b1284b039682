/**
 * Time that goes on evenly while the clock of a machine is set: where that clock and the monotonic one of its kernel
 * part, the kernel's is followed. Common practice.
 */

/** The clocks of a machine in one moment, ms. */
export interface Clocks {
	/** Since 1970, as somebody set it. */
	wallMs: number;
	/** Since the machine was started; nobody sets it. */
	monoMs: number;
}

/** A clock that is led towards the right time differs by less; more is a jump. Common practice. */
export const JUMP_MS = 1000;
/** Within this the two count as one. Common practice. */
const SAME_MS = 100;

/**
 * How far the clock of a machine was set ahead of the steady time, ms; below zero where it was set back.
 * @param baseMs what is added to the monotonic clock for the steady time
 */
export function setAheadMs({ wallMs, monoMs }: Clocks, baseMs: number): number {
	const apart = wallMs - monoMs - baseMs;
	return Math.abs(apart) < JUMP_MS ? 0 : apart;
}

/** What to keep of the steady time, and what to say of it. */
export interface Steady {
	baseMs: number;
	/** The jump that was said, ms. */
	saidMs: number;
	/** A jump that is to be said now, ms. */
	sayMs: number | null;
}

/**
 * Goes on with the steady time: it follows a clock that is led, and takes a clock that was set over while nothing is
 * counted on it; while something is, a jump is said once.
 * @param counted whether anything is counted on it now
 */
export function goOnSteadily(
	clocks: Clocks,
	kept: Pick<Steady, 'baseMs' | 'saidMs'>,
	counted: boolean
): Steady {
	const base = clocks.wallMs - clocks.monoMs;
	const apart = base - kept.baseMs;
	const jumped = Math.abs(apart) >= JUMP_MS;
	if (counted && jumped) {
		const news = Math.abs(apart - kept.saidMs) >= JUMP_MS;
		return { baseMs: kept.baseMs, saidMs: news ? apart : kept.saidMs, sayMs: news ? apart : null };
	}
	return { baseMs: Math.abs(apart) < SAME_MS ? kept.baseMs : base, saidMs: 0, sayMs: null };
}

/** A jump in words, such as "1 h forward". */
export function jumpWords(ms: number): string {
	const seconds = Math.round(Math.abs(ms) / 1000);
	const [h, min, s] = [Math.floor(seconds / 3600), Math.floor(seconds / 60) % 60, seconds % 60];
	const parts = [h && `${h} h`, min && `${min} min`, s && !h && `${s} s`].filter(Boolean);
	return `${parts.join(' ')} ${ms < 0 ? 'back' : 'forward'}`;
}
