import postgres from 'postgres';
import { startInstruments } from '../../../scripts/lib/instruments.mjs';
import { PEOPLE } from '../../../src/lib/server/demo/scenario';
import { forgetSecrets } from '../../../scripts/lib/cluster.mjs';
import { appEnv, migrateAndSeed, startWeb } from '../../../scripts/lib/app.mjs';

/** Serves the built app with the demo from a fresh database on the test cluster, for all browser tests. */
export default async function serve(): Promise<() => Promise<void>> {
	const admin = process.env.TEST_DATABASE_URL;
	if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test.');
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	await root.unsafe('drop database if exists browser with (force)');
	await root.unsafe('create database browser');
	const url = admin.replace(/\/[^/]*$/, '/browser');
	const simulated = await startInstruments();
	const env = {
		...appEnv(url, { demo: true, name: 'browser' }),
		...simulated.env,
		LOG_LEVEL: 'error'
	};
	await migrateAndSeed({ ...env, GREVAN_SEED_ROUNDS: '2' });
	const web = await startWeb(env, { port: 8460, quiet: true });
	process.env.APP_URL = web.address;
	process.env.APP_ENV = JSON.stringify(env);
	process.env.APP_SESSIONS = JSON.stringify(await sessions(web.address));
	return async () => {
		await web.stop();
		await simulated.stop();
		await root.unsafe('drop database browser with (force)');
		await root.end();
		forgetSecrets('browser');
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
