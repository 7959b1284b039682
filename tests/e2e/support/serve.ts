import type { FullConfig } from '@playwright/test';
import postgres from 'postgres';
import { startInstruments } from '../../../scripts/lib/instruments.mjs';
import { PEOPLE } from '../../../src/lib/server/demo/scenario';
import { forgetSecrets } from '../../../scripts/lib/cluster.mjs';
import { appEnv, migrateAndSeed, startWeb } from '../../../scripts/lib/app.mjs';

/** One app of its own for each worker, so that they do not meet in the data. */
export interface Served {
	address: string;
	env: Record<string, string>;
	sessions: Record<string, string>;
}

/** Serves the built app with the demo from fresh databases on the test cluster, for all browser tests. */
export default async function serve(config: FullConfig): Promise<() => Promise<void>> {
	const admin = process.env.TEST_DATABASE_URL;
	if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test.');
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	const served: Served[] = [];
	const undo: (() => Promise<void>)[] = [];
	for (let worker = 0; worker < config.workers; worker++) {
		const name = `browser-${worker}`;
		await root.unsafe(`drop database if exists "${name}" with (force)`);
		await root.unsafe(`create database "${name}"`);
		const simulated = await startInstruments();
		const env = {
			...appEnv(admin.replace(/\/[^/]*$/, `/${name}`), { demo: true, name }),
			...simulated.env,
			LOG_LEVEL: 'error'
		};
		await migrateAndSeed({ ...env, GREVAN_SEED_ROUNDS: '2' });
		const web = await startWeb(env, { port: 8460, quiet: true });
		served.push({ address: web.address, env, sessions: await sessions(web.address) });
		undo.push(async () => {
			await web.stop();
			await simulated.stop();
			await root.unsafe(`drop database "${name}" with (force)`);
			forgetSecrets(name);
		});
	}
	process.env.APPS = JSON.stringify(served);
	return async () => {
		for (const one of undo) await one();
		await root.end();
	};
}

/** A session for each person of the demo, so that the tests do not run into the limit on signing in. */
async function sessions(base: string): Promise<Record<string, string>> {
	const made: Record<string, string> = {};
	for (const { name, email } of PEOPLE) {
		const response = await fetch(`${base}/sign-in?/demo`, {
			method: 'POST',
			redirect: 'manual',
			headers: { origin: base, 'content-type': 'application/x-www-form-urlencoded' },
			body: new URLSearchParams({ email })
		});
		const cookie = response.headers.getSetCookie().find((c) => c.includes('session_token'));
		made[name] = cookie?.split(';')[0] ?? '';
	}
	return made;
}
