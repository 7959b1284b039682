import postgres from 'postgres';
import { appEnv, migrateAndSeed, startWeb } from '../../../scripts/lib/app.mjs';

/** Serves the built app with the demo from a fresh database on the test cluster, for all browser tests. */
export default async function serve(): Promise<() => Promise<void>> {
	const admin = process.env.TEST_DATABASE_URL;
	if (!admin) throw new Error('TEST_DATABASE_URL is not set: run the tests by npm test.');
	const root = postgres(admin, { max: 1, onnotice: () => {} });
	await root.unsafe('drop database if exists browser with (force)');
	await root.unsafe('create database browser');
	const url = admin.replace(/\/[^/]*$/, '/browser');
	const env = { ...appEnv(url, { demo: true, name: 'browser' }), LOG_LEVEL: 'error' };
	await migrateAndSeed({ ...env, GREVAN_SEED_ROUNDS: '2' });
	const web = await startWeb(env, { port: 8460, quiet: true });
	process.env.APP_URL = web.address;
	process.env.APP_ENV = JSON.stringify(env);
	return async () => {
		await web.stop();
		await root.unsafe('drop database browser with (force)');
		await root.end();
	};
}
