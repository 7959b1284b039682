import { once } from 'node:events';
import { mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';
import { checkoutId, dataDir } from './paths.mjs';
import { Stop } from './say.mjs';

/** Whoever takes a lock notes itself within this time. */
const [NOTE_TRIES, NOTE_WAIT_MS] = [40, 50];

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
	try {
		server.listen(`\0grevan-${checkoutId}-${name}`);
		await once(server, 'listening');
	} catch (error) {
		if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EADDRINUSE') throw error;
		throw new Held(`${await heldBy(file)} End that one first.`);
	}
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

/**
 * Who has the lock; whoever took it a moment ago has noted nothing yet.
 * @param {string} file
 */
async function heldBy(file) {
	for (let tries = 0; ; tries++) {
		const [pid = '', note = ''] = textOf(file).split('\n');
		if (pid || tries === NOTE_TRIES)
			return `Already running${pid ? ` as process ${pid}` : ''}${note ? `, ${note}` : ''}.`;
		await pause(NOTE_WAIT_MS);
	}
}

/** @param {string} file */
function textOf(file) {
	try {
		return readFileSync(file, 'utf8');
	} catch {
		return '';
	}
}
