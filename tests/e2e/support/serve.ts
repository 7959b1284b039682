import type { FullConfig } from '@playwright/test';
import { appEnv, migrateAndSeed, startWeb } from '../../../scripts/lib/app.mjs';
import { forgetSecrets } from '../../../scripts/lib/secrets.mjs';
import { startInstruments } from '../../../scripts/lib/instruments.mjs';
import { signInDemo } from '../../../scripts/lib/sign-in.mjs';
import { PEOPLE } from '../../../src/lib/server/demo/scenario';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import postgres from 'postgres';

/** One app of its own for each worker, so that they do not meet in the data. */
export interface Served {
	address: string;
	env: Record<string, string>;
	sessions: Record<string, string>;
}

/** The clones share the accounts of the demo, and so its secrets. */
const SECRETS = 'browser';

/** Serves the built app with the demo from fresh databases on the test cluster, for all browser tests. */
export default async function serve(config: FullConfig): Promise<() => Promise<void>> {
	const admin = process.env.TEST_DATABASE_URL;
	if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test.');
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	const served: Served[] = [];
	const undo: (() => Promise<void>)[] = [];
	const end = async () => {
		for (const one of undo.reverse()) await one();
		await root.unsafe('drop database if exists "browser-demo" with (force)');
		await root.end();
		forgetSecrets(SECRETS);
	};
	try {
		await serveAll(admin);
	} catch (error) {
		// What was started would keep this process from ending.
		await end();
		throw error;
	}
	process.env.APPS = JSON.stringify(served);
	// The machine does much else beside them; apps that tests start themselves are as patient.
	process.env.GREVAN_HEAVY_LIMIT_MS ??= '120000';
	return end;

	async function serveAll(admin: string): Promise<void> {
		for (let worker = 0; worker < config.workers; worker++) {
			const name = `browser-${worker}`;
			await root.unsafe(`drop database if exists "${name}" with (force)`);
			// The demo is put in once; the others are clones of it from before anyone came.
			await root.unsafe(
				`create database "${name}"${worker === 0 ? '' : ' template "browser-demo"'}`
			);
			const simulated = await startInstruments();
			undo.push(simulated.stop);
			const env = {
				...appEnv(admin.replace(/\/[^/]*$/, `/${name}`), { demo: true, name: SECRETS }),
				...simulated.env,
				// Each database has a log of its own.
				GREVAN_ANCHORS: join(mkdtempSync(join(tmpdir(), 'anchors-')), 'log.jsonl'),
				LOG_LEVEL: 'error'
			};
			if (worker === 0) {
				await migrateAndSeed({ ...env, GREVAN_SEED_ROUNDS: '2' });
				await patient(env.DATABASE_URL);
				await root.unsafe('drop database if exists "browser-demo" with (force)');
				await root.unsafe(`create database "browser-demo" template "${name}"`);
			}
			const web = await startWeb(env, { port: 8460, quiet: true });
			served.push({ address: web.address, env, sessions: await sessions(web.address) });
			undo.push(async () => {
				await web.stop();
				rmSync(dirname(env.GREVAN_ANCHORS), { recursive: true, force: true });
				await root.unsafe(`drop database "${name}" with (force)`);
			});
		}
	}
}

/** A slow machine takes longer over the tests than a proof of who one is counts; its own test sets it back. */
async function patient(url: string): Promise<void> {
	const sql = postgres(url, { max: 1, onnotice: () => {} });
	await sql`update site set proof_minutes = 120, idle_minutes = 720`;
	await sql.end();
}

/** A session for each person of the demo, so that the tests do not run into the limit on signing in. */
async function sessions(base: string): Promise<Record<string, string>> {
	const made: Record<string, string> = {};
	for (const { name, email } of PEOPLE) {
		const cookies = await signInDemo(base, email);
		made[name] = cookies.find((c) => c.includes('session_token')) ?? '';
	}
	return made;
}
