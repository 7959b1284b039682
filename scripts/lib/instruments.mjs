import { spawn } from 'node:child_process';
import { bin, root } from './paths.mjs';
import { end } from './process.mjs';
import { Stop } from './say.mjs';

/**
 * Starts the simulated instruments, each its own small process on a free port of loopback.
 * @returns {Promise<{ env: Record<string, string>, stop: () => Promise<void> }>} what the web process needs to find them
 */
export async function startInstruments() {
	const child = spawn(bin('tsx'), ['instruments/pressure-bench/main.ts'], {
		cwd: root,
		stdio: ['ignore', 'pipe', 'inherit', 'ipc']
	});
	const port = await new Promise((resolve, reject) => {
		child.stdout?.setEncoding('utf8');
		child.stdout?.once('data', (/** @type {string} */ text) => resolve(text.trim()));
		child.once('exit', () => reject(new Stop('The simulated pressure bench did not start.')));
	});
	return {
		env: { GREVAN_PRESSURE_BENCH: `127.0.0.1:${port}` },
		stop: () => end(child)
	};
}
