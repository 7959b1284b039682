import { setTimeout as pause } from 'node:timers/promises';
import { say } from './say.mjs';

/** Wait before the first new start, doubled by each that fails or does not last, ms. */
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 30_000;
/** What has gone on for so long counts as well again. */
const WELL_AFTER_MS = 60_000;

/**
 * Starts something again whenever it has ended, for ever, with growing delay and a word on the terminal.
 * @param {string} name
 * @param {() => Promise<unknown>} start throws where it does not start
 * @param {{ over: () => boolean, wait?: (ms: number) => Promise<unknown>, tell?: (line: string) => unknown }} options over once nothing is to be started any more
 * @returns {(why?: unknown) => Promise<void>} called each time that it has ended; done once it goes again
 */
export function keepGoing(name, start, { over, wait = pause, tell = say }) {
	let failures = 0;
	let startedAt = Date.now();
	let busy = false;
	/** It ended again while it was being started. */
	let again = false;
	return async (why) => {
		again = true;
		if (busy || over()) return;
		busy = true;
		try {
			if (Date.now() - startedAt > WELL_AFTER_MS) failures = 0;
			for (let reason = why; !over();) {
				const ms = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** failures++);
				tell(
					`${name} has ended${reason ? ` (${reason})` : ''}; starting it again in ${ms / 1000} s.`
				);
				await wait(ms);
				if (over()) return;
				again = false;
				try {
					await start();
					if (again) throw new Error('it ended at once');
					startedAt = Date.now();
					tell(`${name} goes again.`);
					return;
				} catch (error) {
					reason = error instanceof Error ? error.message.split('\n')[0] : error;
				}
			}
		} finally {
			busy = false;
		}
	};
}

/**
 * Looks whether a database still goes, and starts it again whenever it does not: nobody tells of its end.
 * @param {{ goes: () => Promise<boolean>, restart: () => Promise<unknown> }} cluster
 * @param {number} everyMs
 * @param {Parameters<typeof keepGoing>[2]} options
 * @returns {() => void} looks no more
 */
export function keepDatabase(cluster, everyMs, options) {
	const ended = keepGoing('The database', cluster.restart, options);
	let looking = false;
	const looks = setInterval(async () => {
		// While it is being started again, nothing is told of it.
		if (looking) return;
		looking = true;
		if (!options.over() && !(await cluster.goes().catch(() => true))) await ended();
		looking = false;
	}, everyMs);
	return () => clearInterval(looks);
}
