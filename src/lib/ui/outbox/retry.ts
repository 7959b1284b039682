/** Site-independent waits, common practice: soon at first, then ever later, never more than a minute apart. */
const FIRST_MS = 1000;
const MOST_MS = 60_000;
/** By so much a wait may differ, so that the devices of a site do not all come in the same moment. */
const SPREAD = 0.25;

/**
 * The wait before a try.
 * @param tries that failed in a row, 0 at first
 * @param chance 0 to 1
 */
export const retryMs = (tries: number, chance: number): number =>
	Math.min(MOST_MS, FIRST_MS * 2 ** Math.min(tries, 10)) * (1 - SPREAD * chance);

/** One timer that tries again with a growing wait. */
export class Retry {
	private timer: ReturnType<typeof setTimeout> | undefined;
	private tries = 0;

	/** Tries again later; where a try is waited for already, it stays. */
	later(work: () => void): void {
		if (this.timer !== undefined) return;
		this.timer = setTimeout(
			() => {
				this.timer = undefined;
				work();
			},
			retryMs(this.tries++, Math.random())
		);
	}

	/** It worked, or somebody did something: the next wait is short again. */
	anew(): void {
		this.stop();
		this.tries = 0;
	}

	stop(): void {
		clearTimeout(this.timer);
		this.timer = undefined;
	}
}
