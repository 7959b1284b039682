import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { bin, root } from './paths.mjs';
import { run } from './process.mjs';
import { say } from './say.mjs';

const SOURCES = [
	'src',
	'instruments',
	'static',
	'scripts/lib/headers.mjs',
	'vite.config.ts',
	'svelte.config.js',
	'package-lock.json'
];

/** Builds the app when its sources changed since the last build. */
export async function ensureBuild() {
	const stamp = join(root, 'build', '.grevan-sources');
	const want = fingerprint();
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === want) return;
	say('Building the app ...');
	await run(bin('vite'), ['build', '--logLevel', 'error'], { cwd: root, quiet: true });
	writeFileSync(stamp, want);
}

function fingerprint() {
	const hash = createHash('sha256');
	const walk = (/** @type {string} */ path) => {
		if (!existsSync(path)) return;
		const entries = statIsDirectory(path) ? readdirSync(path).sort() : undefined;
		if (entries) for (const entry of entries) walk(join(path, entry));
		else if (!path.endsWith('.test.ts'))
			hash.update(path.slice(root.length)).update(readFileSync(path));
	};
	for (const source of SOURCES) walk(join(root, source));
	return hash.digest('hex');
}

const statIsDirectory = (/** @type {string} */ path) => {
	try {
		readdirSync(path);
		return true;
	} catch {
		return false;
	}
};
