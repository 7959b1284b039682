import { availableParallelism } from 'node:os';

/** More processes than this on one machine wait for its database. Common practice. */
const MOST = 4;

/**
 * How many web processes answer: one per core up to four, or as many as are asked for.
 * @param {string | undefined} asked what GREVAN_PROCESSES says
 * @param {number} [cores]
 * @returns {number}
 * @throws {RangeError} where it is no number from 1 to 64
 */
export function processCount(asked, cores = availableParallelism()) {
	if (!asked) return Math.max(1, Math.min(MOST, cores));
	const count = Number(asked);
	if (!Number.isInteger(count) || count < 1 || count > 64)
		throw new RangeError(`GREVAN_PROCESSES is "${asked}"; it must be a whole number from 1 to 64.`);
	return count;
}
