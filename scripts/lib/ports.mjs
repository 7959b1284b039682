import { createServer } from 'node:net';

/**
 * The wanted port on loopback, or another free one when it is taken.
 * @param {number} wanted
 * @returns {Promise<number>}
 */
export async function freePort(wanted) {
	return (await tryPort(wanted)) ?? (await tryPort(0)) ?? wanted;
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
