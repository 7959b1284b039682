/** One line for the person at the terminal. Errors go to standard error so that output can be piped. */
export const say = (/** @type {string} */ line) => process.stdout.write(`${line}\n`);
export const complain = (/** @type {string} */ line) => process.stderr.write(`${line}\n`);

/** Exit code of a script that has said all that is to be said. */
export const SAID = 3;

/** A fault that the person can mend; printed without a stack. */
export class Stop extends Error {}

/**
 * Runs the main function of a script and ends the process as it says.
 * @param {() => Promise<number | void>} main
 */
export async function runMain(main) {
	try {
		process.exitCode = (await main()) ?? 0;
	} catch (error) {
		complain(
			error instanceof Stop ? error.message : String(error instanceof Error ? error.stack : error)
		);
		process.exitCode = 1;
	}
}
