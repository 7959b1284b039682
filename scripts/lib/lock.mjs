import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { checkoutId, dataDir } from './paths.mjs';
import { Stop } from './say.mjs';

/** Another process has the lock. */
export class Held extends Stop {}

/** @typedef {{ note: (text: string) => void, release: () => Promise<void> }} Lock */

/**
 * Holds a lock for as long as this process lives, however it ends: an abstract socket of the kernel, which one process
 * has at a time. A file beside it says who, and where.
 * @param {string} name
 * @returns {Promise<Lock>}
 * @throws Held where another process has it, with what it noted
 */
export async function takeLock(name) {
	const file = join(dataDir, `${name}.lock`);
	mkdirSync(dataDir, { recursive: true, mode: 0o711 });
	const server = createServer((socket) => socket.destroy());
	await new Promise((resolve, reject) => {
		server.once('error', (error) => {
			const taken = /** @type {NodeJS.ErrnoException} */ (error).code === 'EADDRINUSE';
			reject(taken ? new Held(`${heldBy(file)} End that one first.`) : error);
		});
		server.listen(`\0grevan-${checkoutId}-${name}`, () => resolve(undefined));
	});
	server.unref();
	writeFileSync(file, `${process.pid}\n`);
	return {
		note: (text) => writeFileSync(file, `${process.pid}\n${text}\n`),
		release: async () => {
			rmSync(file, { force: true });
			await new Promise((resolve) => server.close(resolve));
		}
	};
}

/** @param {string} file */
function heldBy(file) {
	let [pid, note] = ['', ''];
	try {
		[pid = '', note = ''] = readFileSync(file, 'utf8').split('\n');
	} catch {
		// It took the lock a moment ago and has noted nothing yet.
	}
	return `Already running${pid ? ` as process ${pid}` : ''}${note ? `, ${note}` : ''}.`;
}
