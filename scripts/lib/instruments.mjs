import { spawn } from 'node:child_process';
import { bin, root } from './paths.mjs';
import { end } from './process.mjs';
import { Stop } from './say.mjs';

/**
 * Starts the simulated instruments, in a small process of their own, on free ports of loopback.
 * @param {number} benches
 * @returns {Promise<{ env: Record<string, string>, stop: () => Promise<void> }>} what the web process needs to find them
 */
export async function startInstruments(benches = 2) {
	const child = spawn(bin('tsx'), ['instruments/pressure-bench/main.ts', String(benches)], {
		cwd: root,
		stdio: ['ignore', 'pipe', 'inherit', 'ipc']
	});
	const ports = await new Promise((resolve, reject) => {
		child.stdout?.setEncoding('utf8');
		child.stdout?.once('data', (/** @type {string} */ text) => resolve(text.trim().split(',')));
		child.once('exit', () => reject(new Stop('The simulated pressure bench did not start.')));
	});
	return {
		env: {
			GREVAN_PRESSURE_BENCH: ports
				.map((/** @type {string} */ port) => `127.0.0.1:${port}`)
				.join(',')
		},
		stop: () => end(child)
	};
}
