// Serves the built app, with its keeper beside it. Ends with the process that started it, so that a killed start leaves nothing behind.
import { fork } from 'node:child_process';
import { subscribe } from 'node:diagnostics_channel';
import { join } from 'node:path';
import { SECURITY_HEADERS } from './lib/headers.mjs';
import { keepGoing } from './lib/keep.mjs';
import { endWithParent } from './lib/parent.mjs';
import { root } from './lib/paths.mjs';

endWithParent();
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
async function startKeeper() {
	const keeper = fork(join(root, 'scripts', 'keeper.ts'), {
		cwd: root,
		execArgv: ['--import', 'tsx'],
		stdio: ['ignore', 'inherit', 'inherit', 'ipc']
	});
	keeper.on('exit', (code) => void keeperEnded(code));
}
const keeperEnded = keepGoing('The keeper', startKeeper, { over: () => false });
// What runs without a visitor is not done here.
process.env.GREVAN_KEEPER = 'apart';
await startKeeper();
// By its address, so that types of what was built are nobody's concern.
await import(new URL('../build/index.js', import.meta.url).href);
