import { spawn } from 'node:child_process';
import { bin, root } from './paths.mjs';
import { end } from './process.mjs';
import { Stop } from './say.mjs';

/**
 * Starts the simulated instruments, in a small process of their own, on free ports of loopback.
 * @param {number} benches
 * @returns {Promise<{ env: { GREVAN_PRESSURE_BENCH: string, GREVAN_BA_BENCH: string, GREVAN_FILL_PANEL: string, GREVAN_TELEMETRY: string }, stop: () => Promise<void> }>} what the web process needs to find them
 */
export async function startInstruments(benches = 2) {
	const child = spawn(bin('tsx'), ['instruments/main.ts', String(benches)], {
		cwd: root,
		stdio: ['ignore', 'pipe', 'inherit', 'ipc']
	});
	/** @type {{ pressure: number[], ba: number, panel: number, telemetry: number }} */
	const ports = await new Promise((resolve, reject) => {
		child.stdout?.setEncoding('utf8');
		child.stdout?.once('data', (/** @type {string} */ text) => resolve(JSON.parse(text)));
		child.once('exit', () => reject(new Stop('The simulated instruments did not start.')));
	});
	const address = (/** @type {number} */ port) => `127.0.0.1:${port}`;
	return {
		env: {
			GREVAN_PRESSURE_BENCH: ports.pressure.map(address).join(','),
			GREVAN_BA_BENCH: address(ports.ba),
			GREVAN_FILL_PANEL: address(ports.panel),
			GREVAN_TELEMETRY: address(ports.telemetry)
		},
		stop: () => end(child)
	};
}
