import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataDir } from './paths.mjs';
import { alive } from './process.mjs';
import { Stop } from './say.mjs';

/**
 * Holds a lock for this process; a lock of a process that is gone is taken over.
 * @param {string} name
 * @returns {{ note: (text: string) => void, release: () => void }}
 */
export function takeLock(name) {
	const file = join(dataDir, `${name}.lock`);
	mkdirSync(dataDir, { recursive: true, mode: 0o711 });
	if (existsSync(file)) {
		const [pid, note] = readFileSync(file, 'utf8').split('\n');
		if (pid && Number(pid) !== process.pid && alive(Number(pid)) && isNode(Number(pid)))
			throw new Stop(
				`Already running as process ${pid}${note ? `, ${note}` : ''}. End that one first.`
			);
	}
	writeFileSync(file, `${process.pid}\n`);
	return {
		note: (text) => writeFileSync(file, `${process.pid}\n${text}\n`),
		release: () => rmSync(file, { force: true })
	};
}

/**
 * Process ids are used again: only a Node process can be an earlier start of ours.
 * @param {number} pid
 */
function isNode(pid) {
	try {
		return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('.mjs');
	} catch {
		return false;
	}
}
