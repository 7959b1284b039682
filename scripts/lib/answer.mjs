import { subscribe } from 'node:diagnostics_channel';
import { SECURITY_HEADERS } from './headers.mjs';

/** Serves the built app in this process. */
export async function answer() {
	// Emitted once the last request is answered; the pool's idle connections need not be waited for.
	process.on('sveltekit:shutdown', () => process.exit(0));
	// What was refused before its body was read leaves the rest of it on the connection, and the next request there,
	// behind a proxy that of somebody else, would not be heard: it is read and thrown away.
	subscribe('http.server.response.finish', (message) => {
		const { request } = /** @type {{ request: import('node:http').IncomingMessage }} */ (message);
		if (request.complete) return;
		request.removeAllListeners('data');
		request.resume();
	});
	const headers = {
		...SECURITY_HEADERS,
		...(process.env.ORIGIN?.startsWith('https:')
			? { 'strict-transport-security': 'max-age=31536000' }
			: {})
	};
	subscribe('http.server.request.start', (message) => {
		const { response } = /** @type {{ response: import('node:http').ServerResponse }} */ (message);
		for (const [name, value] of Object.entries(headers)) response.setHeader(name, value);
	});
	// What runs without a visitor is not done here.
	process.env.GREVAN_KEEPER = 'apart';
	// By its address, so that types of what was built are nobody's concern.
	await import(new URL('../../build/index.js', import.meta.url).href);
}
