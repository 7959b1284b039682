/** Tries that may fail before one has to wait. Common practice. */
export const FREE_TRIES = 4;
/** The first wait, doubled by each further try that fails. Common practice. */
export const FIRST_WAIT_S = 30;
/** No wait is longer: who forgot must not be kept out for a shift. Site default. */
export const LONGEST_WAIT_S = 3600;
/** A PIN that was tried so often in a row is taken away: a password is needed, and a new PIN. Site default. */
export const PIN_TRIES = 8;

/**
 * How long an account waits after so many tries in a row that failed, the last one included.
 * @returns seconds, 0 for no wait
 */
export function waitS(failures: number): number {
	if (failures <= FREE_TRIES) return 0;
	return Math.min(LONGEST_WAIT_S, FIRST_WAIT_S * 2 ** (failures - FREE_TRIES - 1));
}

/** How much of a wait is left, seconds; 0 when one may try again. */
export function waitLeftS(failures: number, lastAt: Date, now: Date): number {
	const passedS = (now.getTime() - lastAt.getTime()) / 1000;
	return Math.max(0, Math.ceil(waitS(failures) - passedS));
}

/** A wait in words, such as "2 minutes". */
export function waitWords(seconds: number): string {
	if (seconds < 60) return seconds === 1 ? '1 second' : `${seconds} seconds`;
	const minutes = Math.ceil(seconds / 60);
	return minutes === 1 ? '1 minute' : `${minutes} minutes`;
}
