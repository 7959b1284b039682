import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import postgres from 'postgres';
import { appEnv, startWeb } from '../../../scripts/lib/app.mjs';
import { bin, root } from '../../../scripts/lib/paths.mjs';
import { attempt } from '../../../scripts/lib/process.mjs';

const NAME = 'read-in';
const EMAIL = 'maud@osmund.example';

/** Reads an archive into an empty database by the commands of the README, gives one person a password, and serves it. */
export async function siteFrom(
	file: string,
	work: (address: string, email: string, password: string) => Promise<void>
): Promise<void> {
	const admin = process.env.TEST_DATABASE_URL ?? '';
	const server = postgres(admin, { max: 1, onnotice: () => {} });
	const folder = mkdtempSync(join(tmpdir(), 'read-in-'));
	await server.unsafe(`drop database if exists "${NAME}" with (force)`);
	await server.unsafe(`create database "${NAME}"`);
	try {
		const env = {
			...appEnv(admin.replace(/\/[^/]*$/, `/${NAME}`), { demo: false, name: 'browser' }),
			GREVAN_ANCHORS: join(folder, 'log.jsonl'),
			LOG_LEVEL: 'error'
		};
		const run = async (script: string, ...args: string[]) => {
			const { code, output } = await attempt(bin('tsx'), [`scripts/${script}.ts`, ...args], {
				cwd: root,
				// Locks of its own: whatever else of this checkout runs is left alone.
				env: { ...process.env, ...env, GREVAN_DATA_DIR: folder }
			});
			if (code !== 0) throw new Error(`${script} ended with ${code}: ${output}`);
			return output;
		};
		await run('archive-read', file);
		const said = await run('user-add', 'Maud Anderlin', 'MA', EMAIL, 'admin');
		const password = /sign in with: (\S+)/.exec(said)?.[1] ?? '';
		const web = await startWeb(env, { port: 8590, quiet: true });
		try {
			await work(web.address, EMAIL, password);
		} finally {
			await web.stop();
		}
	} finally {
		await server.unsafe(`drop database if exists "${NAME}" with (force)`);
		await server.end();
		rmSync(folder, { recursive: true, force: true });
	}
}
