import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, readlinkSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, relative } from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import postgres from 'postgres';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { anchorHead } from '../../src/lib/server/kernel/anchors.ts';

/** `npm start` as whoever runs it sees it, with a folder of its own. */
const dataDir = mkdtempSync(join(tmpdir(), 'grevan-start-'));
const PATIENCE = { timeout: 120_000, interval: 100 };
const env = {
	...process.env,
	GREVAN_DATA_DIR: dataDir,
	GREVAN_DEMO: '0',
	LOG_LEVEL: 'silent',
	PORT: '8600'
};

interface Started {
	child: ChildProcess;
	said: () => string;
	/** Ends by itself, or serves. */
	settled: Promise<'serves' | 'ended'>;
	address: () => string;
}

function start(command = [process.execPath, 'scripts/start.mjs']): Started {
	const [program = '', ...args] = command;
	const child = spawn(program, args, { env, stdio: ['ignore', 'pipe', 'pipe'] });
	let out = '';
	const settled = new Promise<'serves' | 'ended'>((resolve) => {
		const heard = (text: Buffer) => {
			out += String(text);
			if (out.includes('Ctrl-C ends it.')) resolve('serves');
		};
		child.stdout.on('data', heard);
		child.stderr.on('data', heard);
		child.once('exit', () => resolve('ended'));
	});
	return { child, said: () => out, settled, address: () => /Grevan: (\S+)/.exec(out)?.[1] ?? '' };
}

const gone = ({ child }: Started) =>
	child.exitCode !== null || child.signalCode !== null
		? Promise.resolve()
		: new Promise((resolve) => child.once('exit', resolve));

/** Processes that were started for the folder: by their environment, or by what they have open. */
const left = (): string[] =>
	readdirSync('/proc').flatMap((pid) => {
		if (!/^\d+$/.test(pid) || Number(pid) === process.pid) return [];
		try {
			const environment = readFileSync(`/proc/${pid}/environ`, 'utf8');
			const cwd = readlinkSync(`/proc/${pid}/cwd`);
			if (!environment.includes(`GREVAN_DATA_DIR=${dataDir}`) && !cwd.startsWith(dataDir))
				return [];
			return [`${pid} ${readFileSync(`/proc/${pid}/cmdline`, 'utf8').replaceAll('\0', ' ')}`];
		} catch {
			return [];
		}
	});
const nothingLeft = () => vi.waitFor(() => expect(left()).toEqual([]), PATIENCE);

async function stop(one: Started, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
	one.child.kill(signal);
	await gone(one);
	await nothingLeft();
}

/** The database of the folder while a start holds it. */
async function inDatabase<T>(work: (sql: postgres.Sql) => Promise<T>): Promise<T> {
	const { runningCluster } = await import('../../scripts/lib/cluster.mjs');
	const url = await runningCluster('database');
	const sql = postgres(url ?? '', { max: 1, onnotice: () => {} });
	try {
		return await work(sql);
	} finally {
		await sql.end();
	}
}

/** Something that has to be there after every start. */
const putRecord = () =>
	inDatabase((sql) => sql`create table if not exists holds as select 'the record' as what`);

/** An account is in the log, and the end of the log is signed, as after a minute of use. */
async function inUse(): Promise<void> {
	const one = start();
	expect(await one.settled).toBe('serves');
	const script = ['scripts/with-database.mjs', 'scripts/user-add.ts', 'Ada Voss', 'AV'];
	const added = start([process.execPath, ...script, 'ada@yard.example', 'admin']);
	await gone(added);
	expect(added.said()).toContain('may sign in with');
	await putRecord();
	const { runningCluster } = await import('../../scripts/lib/cluster.mjs');
	const { anchorPaths } = await import('../../scripts/lib/secrets.mjs');
	const { db, close } = openDatabase((await runningCluster('database')) ?? '', { max: 1 });
	await anchorHead(db, anchorPaths('app'), 'interval', new Date());
	await close();
	await stop(one);
}

beforeAll(() => {
	process.env.GREVAN_DATA_DIR = dataDir;
	vi.resetModules();
});
afterAll(async () => {
	for (const line of left()) process.kill(Number(line.split(' ')[0]), 'SIGKILL');
	const { clusterPlace } = await import('../../scripts/lib/cluster.mjs');
	rmSync((await clusterPlace('database')).dir, { recursive: true, force: true });
	delete process.env.GREVAN_DATA_DIR;
	vi.resetModules();
	rmSync(dataDir, { recursive: true, force: true });
});

describe('the start', () => {
	it('that is killed at any moment of the first one is finished by the next, and leaves nothing behind', async () => {
		for (const ms of [150, 700, 1500, 2600]) {
			const first = start();
			await Promise.race([first.settled, new Promise((resolve) => setTimeout(resolve, ms))]);
			await stop(first, 'SIGKILL');
		}
		const next = start();
		expect(await next.settled).toBe('serves');
		expect((await fetch(`${next.address()}/readyz`)).status).toBe(200);
		await putRecord();
		await stop(next, 'SIGKILL');
	});

	it('happens once of two in the same moment; the other says who runs', async () => {
		const both = [start(), start()];
		const how = await Promise.all(both.map((one) => one.settled));
		expect([...how].sort()).toEqual(['ended', 'serves']);
		const other = both[how.indexOf('ended')];
		expect(other?.said()).toMatch(/^Already running as process \d+/m);
		const one = both[how.indexOf('serves')];
		if (one) await stop(one);
	});

	it('is ended whole by TERM to npm', async () => {
		const npm = start(['npm', 'start']);
		expect(await npm.settled).toBe('serves');
		expect(await inDatabase((sql) => sql`select what from holds`)).toEqual([
			{ what: 'the record' }
		]);
		await stop(npm);
	});

	it('works, or stops with a sentence, after each file beside the database was removed', async () => {
		const files = () =>
			readdirSync(dataDir, { recursive: true, withFileTypes: true })
				.filter((entry) => entry.isFile())
				.map((entry) => relative(dataDir, join(entry.parentPath, entry.name)))
				.filter((name) => !/^(database\/|cache\/|results\/)/.test(name) && !name.endsWith('.lock'))
				.sort();
		await inUse();
		const before = files();
		expect(before).toEqual([
			'anchors/app.jsonl',
			'app-log-key.pem',
			'app-role.secret',
			'app-session.secret',
			'database.secret'
		]);
		const aside = mkdtempSync(join(tmpdir(), 'grevan-aside-'));
		const how: Record<string, string> = {};
		for (const [i, name] of before.entries()) {
			renameSync(join(dataDir, name), join(aside, String(i)));
			const one = start();
			const settled = await one.settled;
			how[name] = settled === 'serves' ? 'serves' : (one.said().trim().split('\n').at(-1) ?? '');
			if (settled === 'serves') {
				expect(await inDatabase((sql) => sql`select what from holds`)).toHaveLength(1);
				await stop(one);
			} else await nothingLeft();
			expect(files()).toEqual(expect.arrayContaining(before.slice(i + 1)));
			// A password that the database was given anew stays; what held by the secret is put back.
			if (name === 'app-session.secret') renameSync(join(aside, String(i)), join(dataDir, name));
		}
		rmSync(aside, { recursive: true });
		expect(how).toEqual({
			'anchors/app.jsonl': 'serves',
			'app-log-key.pem': 'serves',
			'app-role.secret': 'serves',
			'app-session.secret': expect.stringMatching(/Put it back from a copy.*GREVAN_NEW_SECRET=1/),
			'database.secret': 'serves'
		});
	});
});
