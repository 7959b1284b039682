import { spawn } from 'node:child_process';
import { Stop } from './say.mjs';

/**
 * Runs a command to its end.
 * @param {string} command
 * @param {string[]} args
 * @param {import('node:child_process').SpawnOptions & { quiet?: boolean }} [options] quiet keeps the output for the error
 * @returns {Promise<string>} what it printed, where quiet
 */
export async function run(command, args, options = {}) {
	const { quiet = false, ...rest } = options;
	const result = await attempt(command, args, { stdio: quiet ? 'pipe' : 'inherit', ...rest });
	if (result.code === 0) return result.output;
	throw new Stop(`${command} ${args.join(' ')} ended with ${result.code}.\n${result.output}`);
}

/**
 * Runs a command to its end and gives its exit code, whatever it is.
 * @param {string} command
 * @param {string[]} args
 * @param {import('node:child_process').SpawnOptions & { input?: string }} [options] input is what it reads
 * @returns {Promise<{ code: number, output: string }>}
 */
export function attempt(command, args, options = {}) {
	const { input, ...rest } = options;
	return new Promise((resolve, reject) => {
		const child = spawn(command, args, { stdio: 'pipe', ...rest });
		if (input !== undefined) child.stdin?.end(input);
		let output = '';
		child.stdout?.on('data', (chunk) => (output += chunk));
		child.stderr?.on('data', (chunk) => (output += chunk));
		child.on('error', reject);
		// Not "close": a daemon that the command started may keep its pipes.
		child.on('exit', (code, signal) => resolve({ code: code ?? (signal ? 128 : 1), output }));
	});
}

/**
 * Ends a child and waits for it; kills it when it does not go.
 * @param {import('node:child_process').ChildProcess} child
 * @param {NodeJS.Signals} [signal]
 */
export async function end(child, signal = 'SIGTERM') {
	if (child.exitCode !== null || child.signalCode !== null) return;
	const gone = new Promise((resolve) => child.once('exit', resolve));
	child.kill(signal);
	const timer = setTimeout(() => child.kill('SIGKILL'), 8000);
	await gone;
	clearTimeout(timer);
}

/**
 * Whether a process id is alive.
 * @param {number} pid
 */
export function alive(pid) {
	try {
		process.kill(pid, 0);
		return true;
	} catch (error) {
		return /** @type {NodeJS.ErrnoException} */ (error).code === 'EPERM';
	}
}
