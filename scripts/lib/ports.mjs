import { randomInt } from 'node:crypto';
import { createServer } from 'node:net';
import { Stop } from './say.mjs';

/**
 * The wanted port on loopback, or another free one when it is taken.
 * @param {number} wanted
 * @returns {Promise<number>}
 */
export async function freePort(wanted) {
	return (await tryPort(wanted)) ?? (await lastingPort());
}

/** Ports that the kernel gives to no connection by itself. */
const [LASTING_FROM, LASTING_TO] = [20_000, 32_000];
const TRIES = 200;

/**
 * A free port that can be taken again after whoever listened there has ended: no connection was given it meanwhile.
 * @returns {Promise<number>}
 */
export async function lastingPort() {
	for (let tries = 0; tries < TRIES; tries++) {
		const port = await tryPort(randomInt(LASTING_FROM, LASTING_TO));
		if (port !== undefined) return port;
	}
	throw new Stop('There is no free port on this machine.');
}

/**
 * @param {number} port
 * @returns {Promise<number | undefined>}
 */
function tryPort(port) {
	return new Promise((resolve) => {
		const server = createServer();
		server.once('error', () => resolve(undefined));
		server.listen(port, '127.0.0.1', () => {
			const address = server.address();
			const got = typeof address === 'object' && address ? address.port : undefined;
			server.close(() => resolve(got));
		});
	});
}
