import { spawn } from 'node:child_process';
import { root } from './paths.mjs';
import { lastingPort } from './ports.mjs';
import { end } from './process.mjs';
import { Stop } from './say.mjs';

/** @typedef {{ pressure: number[], ba: number, panel: number, telemetry: number, fit: number[], bath: number }} Ports */

/**
 * Starts the simulated instruments, in a small process of their own, on ports of loopback.
 * @param {{ benches?: number, ports?: Ports | undefined, onExit?: (code: number | null) => void }} [options] ports that they had before; free ones without
 * @returns {Promise<{ env: { GREVAN_PRESSURE_BENCH: string, GREVAN_BA_BENCH: string, GREVAN_FILL_PANEL: string, GREVAN_TELEMETRY: string, GREVAN_FIT_COUNTER: string, GREVAN_THERMOMETER: string }, ports: Ports, child: import('node:child_process').ChildProcess, stop: () => Promise<void> }>} what the web process needs to find them
 */
export async function startInstruments({ benches = 2, ports: wanted, onExit } = {}) {
	const given = wanted
		? [...wanted.pressure, wanted.ba, wanted.panel, wanted.telemetry, ...wanted.fit, wanted.bath]
		: await Promise.all(Array.from({ length: benches + 6 }, lastingPort));
	const child = spawn(
		process.execPath,
		['--import', 'tsx', 'instruments/main.ts', String(benches), ...given.map(String)],
		{ cwd: root, stdio: ['ignore', 'pipe', 'inherit', 'ipc'] }
	);
	/** @type {Ports} */
	const ports = await new Promise((resolve, reject) => {
		child.stdout?.setEncoding('utf8');
		child.stdout?.once('data', (/** @type {string} */ text) => resolve(JSON.parse(text)));
		child.once('exit', () => reject(new Stop('The simulated instruments did not start.')));
	});
	child.once('exit', (code) => onExit?.(code));
	const address = (/** @type {number} */ port) => `127.0.0.1:${port}`;
	return {
		env: {
			GREVAN_PRESSURE_BENCH: ports.pressure.map(address).join(','),
			GREVAN_BA_BENCH: address(ports.ba),
			GREVAN_FILL_PANEL: address(ports.panel),
			GREVAN_TELEMETRY: address(ports.telemetry),
			GREVAN_FIT_COUNTER: ports.fit.map(address).join(','),
			GREVAN_THERMOMETER: address(ports.bath)
		},
		ports,
		child,
		stop: () => end(child)
	};
}
