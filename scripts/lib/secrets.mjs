import { randomBytes } from 'node:crypto';
import { existsSync, linkSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { dataDir } from './paths.mjs';
import { Stop } from './say.mjs';

/** @param {string} name */
export const secretFile = (name) => join(dataDir, `${name}.secret`);

/**
 * A secret made at first use and kept readable by its owner only.
 * @param {string} name
 */
export function secretFor(name) {
	const file = secretFile(name);
	if (!existsSync(file)) {
		mkdirSync(dataDir, { recursive: true, mode: 0o711 });
		// Written aside and linked whole: a start that is killed meanwhile leaves none that is empty, and of two at once
		// one makes it.
		const aside = `${file}.${randomBytes(4).toString('hex')}`;
		try {
			writeFileSync(aside, randomBytes(24).toString('hex'), { mode: 0o600, flush: true });
			linkSync(aside, file);
		} catch (error) {
			if (/** @type {NodeJS.ErrnoException} */ (error).code !== 'EEXIST') throw error;
		} finally {
			rmSync(aside, { force: true });
		}
	}
	return readSecret(name);
}

/**
 * A secret that is there. @throws Stop where it is not ours to read, or empty
 * @param {string} name
 */
export function readSecret(name) {
	const file = secretFile(name);
	let secret = '';
	try {
		secret = readFileSync(file, 'utf8').trim();
	} catch (error) {
		throw new Stop(
			`${file} cannot be read (${/** @type {NodeJS.ErrnoException} */ (error).code}). Start as the one who owns it, or give it to yourself; it was not changed.`
		);
	}
	if (secret) return secret;
	throw new Stop(`${file} is empty. Put it back from a copy, or remove it to have another made.`);
}

/**
 * Where the key is that the end of the log is signed with, and the signed ends.
 * @param {string} name
 */
export const anchorPaths = (name) => ({
	key: join(dataDir, `${name}-log-key.pem`),
	file: join(dataDir, 'anchors', `${name}.jsonl`)
});

/**
 * Removes the secrets that were made for a name.
 * @param {string} name
 */
export function forgetSecrets(name) {
	for (const secret of [name, `${name}-session`, `${name}-demo`, `${name}-role`])
		rmSync(secretFile(secret), { force: true });
	const { key, file } = anchorPaths(name);
	for (const kept of [key, file]) rmSync(kept, { force: true });
}
