import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { bin, root } from './paths.mjs';
import { freePort } from './ports.mjs';
import { attempt, end } from './process.mjs';
import { anchorPaths, secretFor } from './secrets.mjs';
import { SAID, Stop } from './say.mjs';

/** A page is made of many short-lived pieces: with room for them less of the time goes into clearing up. */
const YOUNG_MEMORY = '--max-semi-space-size=32';

/**
 * Migrates a database and, where a demo password is given, fills it with the demo when it is empty.
 * @param {Record<string, string | undefined>} env
 */
export async function migrateAndSeed(env) {
	const { code, output } = await attempt(bin('tsx'), ['scripts/migrate-and-seed.ts'], {
		cwd: root,
		env: { ...process.env, ...env }
	});
	if (code === 0) return output;
	throw new Stop(code === SAID ? output.trim() : `The database was not made ready.\n${output}`);
}

/**
 * What the web process needs of its environment; what was given from outside stands.
 * @param {string} ownerUrl the database, by the role that owns it
 * @param {{ demo: boolean, name?: string }} options
 */
export function appEnv(ownerUrl, { demo, name = 'app' }) {
	const anchors = anchorPaths(name);
	return {
		NODE_ENV: 'production',
		...databaseRoles(ownerUrl, name),
		GREVAN_LOG_KEY: process.env.GREVAN_LOG_KEY ?? anchors.key,
		GREVAN_ANCHORS: process.env.GREVAN_ANCHORS ?? anchors.file,
		GREVAN_SECRET: process.env.GREVAN_SECRET ?? secretFor(`${name}-session`),
		...(demo
			? {
					GREVAN_DEMO_PASSWORD:
						process.env.GREVAN_DEMO_PASSWORD ?? secretFor(`${name}-demo`).slice(0, 16)
				}
			: {})
	};
}

/**
 * The database by the role that owns it, and by the one that the application comes in with, which owns nothing. For a
 * database of somebody else both are as they were given.
 * @param {string} ownerUrl
 * @param {string} name
 */
function databaseRoles(ownerUrl, name) {
	const { DATABASE_URL: given, GREVAN_OWNER_URL: owner } = process.env;
	if (given && given === ownerUrl) return { DATABASE_URL: given, GREVAN_OWNER_URL: owner ?? given };
	const app = new URL(ownerUrl);
	app.username = name === 'app' ? 'grevan_app' : `grevan_${name}`;
	app.password = secretFor(`${name}-role`);
	return { DATABASE_URL: app.href, GREVAN_OWNER_URL: ownerUrl };
}

/**
 * Starts the built web process and waits until it answers.
 * @param {Record<string, string | undefined>} env
 * @param {{ port: number, onExit?: (code: number | null) => void, quiet?: boolean }} options
 * @returns {Promise<{ address: string, port: number, child: import('node:child_process').ChildProcess, stop: () => Promise<void> }>}
 */
export async function startWeb(env, { port: wanted, onExit, quiet = false }) {
	const host = process.env.HOST ?? '127.0.0.1';
	const port = await freePort(wanted);
	const address = env.ORIGIN ?? process.env.ORIGIN ?? `http://127.0.0.1:${port}`;
	const child = spawn(process.execPath, [YOUNG_MEMORY, join(root, 'scripts', 'serve.mjs')], {
		cwd: root,
		env: {
			...process.env,
			...env,
			HOST: host,
			PORT: String(port),
			ORIGIN: address,
			SHUTDOWN_TIMEOUT: process.env.SHUTDOWN_TIMEOUT ?? '3',
			// A table of 50,000 rows; every route checks what it takes.
			BODY_SIZE_LIMIT: process.env.BODY_SIZE_LIMIT ?? '25M'
		},
		// The channel tells the web process when this one is gone, however it went.
		stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit', 'ipc']
	});
	// Where it listens on all addresses of the machine, loopback is one of them.
	const near = host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host;
	let exited = false;
	child.on('exit', (code) => {
		exited = true;
		onExit?.(code);
	});
	for (let tries = 0; tries < 1200; tries++) {
		if (exited) throw new Stop('The web process ended while it was starting; see above.');
		const ok = await fetch(`http://${near}:${port}/healthz`, {
			headers: { connection: 'close' }
		}).then(
			(response) => response.ok,
			() => false
		);
		if (ok) return { address, port, child, stop: () => end(child) };
		await new Promise((resolve) => setTimeout(resolve, 50));
	}
	await end(child);
	throw new Stop('The web process did not answer within a minute.');
}
