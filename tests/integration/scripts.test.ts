import { spawn } from 'node:child_process';
import {
	chownSync,
	cpSync,
	existsSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	renameSync,
	rmSync,
	statSync,
	writeFileSync
} from 'node:fs';
import { type AddressInfo, createServer, type Server } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { freePort, lastingPort } from '../../scripts/lib/ports.mjs';
import postgres from 'postgres';

/** The scripts keep their things in a folder of their own, here a fresh one. */
const dataDir = mkdtempSync(join(tmpdir(), 'grevan-scripts-'));
const held: Server[] = [];
let scripts: typeof import('../../scripts/lib/cluster.mjs') &
	typeof import('../../scripts/lib/lock.mjs');

beforeAll(async () => {
	process.env.GREVAN_DATA_DIR = dataDir;
	// Other files may have loaded them for the folder of the project.
	vi.resetModules();
	scripts = {
		...(await import('../../scripts/lib/cluster.mjs')),
		...(await import('../../scripts/lib/lock.mjs'))
	};
});
afterEach(() => {
	for (const server of held.splice(0)) server.close();
});
afterAll(() => {
	delete process.env.GREVAN_DATA_DIR;
	vi.resetModules();
	rmSync(dataDir, { recursive: true, force: true });
});

/** Holds a port as another program would. */
async function hold(port: number): Promise<number> {
	const server = createServer();
	held.push(server);
	await new Promise<void>((resolve) => server.listen(port, '127.0.0.1', resolve));
	return (server.address() as AddressInfo).port;
}

/** Runs a program with input; gives its output and exit code. */
function run(
	command: string,
	args: string[],
	input: string
): Promise<{ out: string; code: number | null }> {
	return new Promise((resolve, reject) => {
		const child = spawn(command, args, { env: { ...process.env, GREVAN_DATA_DIR: dataDir } });
		let out = '';
		child.stdout.on('data', (chunk) => (out += chunk));
		child.on('error', reject);
		child.on('exit', (code) => resolve({ out, code }));
		child.stdin.end(input);
	});
}

describe('ports', () => {
	it('takes the wanted port when it is free, another when it is held', async () => {
		const taken = await hold(0);
		expect(await freePort(taken)).not.toBe(taken);
		held.splice(0).forEach((server) => server.close());
		await new Promise((resolve) => setTimeout(resolve, 20));
		expect(await freePort(taken)).toBe(taken);
	});
});

describe('the cluster of the project', () => {
	it('is never removed for something that is missing in it', async () => {
		const cluster = await scripts.startCluster('kept', { durable: false });
		const sql = postgres(cluster.url, { max: 1 });
		await sql`create table holds (what text)`;
		await sql`insert into holds values ('the record')`;
		await sql.end();
		await cluster.stop();
		const files = () => readdirSync(cluster.dir, { recursive: true, encoding: 'utf8' }).sort();
		const version = readFileSync(join(cluster.dir, 'PG_VERSION'));
		rmSync(join(cluster.dir, 'PG_VERSION'));
		const before = files();
		await expect(scripts.startCluster('kept', { durable: false })).rejects.toThrow(
			/PG_VERSION is missing in it. Nothing was touched/
		);
		expect(files()).toEqual(before);
		writeFileSync(join(cluster.dir, 'PG_VERSION'), version);
		// Another file that it cannot do without: it does not start, and stays.
		const control = join(cluster.dir, 'global', 'pg_control');
		renameSync(control, `${control}.away`);
		await expect(scripts.startCluster('kept', { durable: false })).rejects.toThrow();
		renameSync(`${control}.away`, control);
		// Its password gone: it is given another.
		rmSync(join(dataDir, 'kept.secret'));
		const again = await scripts.startCluster('kept', { durable: false });
		const opened = postgres(again.url, { max: 1 });
		try {
			expect(await opened`select what from holds`).toEqual([{ what: 'the record' }]);
		} finally {
			await opened.end();
			await again.halt();
			scripts.removeCluster(again, 'kept');
		}
		expect(readdirSync(dataDir).filter((name) => name.includes('unfinished'))).toEqual([]);
	});

	it('says so where its secret is empty, and leaves it as it is', async () => {
		writeFileSync(join(dataDir, 'empty.secret'), '');
		await expect(scripts.startCluster('empty', { durable: false })).rejects.toThrow(/is empty/);
		expect(readFileSync(join(dataDir, 'empty.secret'), 'utf8')).toBe('');
	});

	it('is its own, whoever else starts at the same moment and finds the same port free', async () => {
		const wanted = await lastingPort();
		const names = ['at-once-1', 'at-once-2', 'at-once-3'];
		const made = await Promise.all(
			names.map((name) => scripts.startCluster(name, { durable: false, port: wanted }))
		);
		try {
			expect(new Set(made.map(({ port }) => port)).size).toBe(3);
			for (const { url, dir } of made) {
				const sql = postgres(url, { max: 1 });
				expect(await sql`select current_setting('data_directory') as dir`).toEqual([{ dir }]);
				await sql.end();
			}
		} finally {
			for (const one of made) await one.stop();
		}
	});

	it('starts beside whoever holds its port, asks for a password, listens on loopback only, not as root', async () => {
		const taken = await hold(0);
		const cluster = await scripts.startCluster('one', { durable: false, port: taken });
		try {
			expect(cluster.port).not.toBe(taken);
			const sql = postgres(cluster.url, { max: 1 });
			const [row] =
				await sql`select current_setting('listen_addresses') as listens, current_setting('unix_socket_directories') as sockets`;
			expect(row).toEqual({ listens: '127.0.0.1', sockets: '' });
			const rules = await sql`select distinct auth_method from pg_hba_file_rules`;
			expect(rules.map((r) => r.auth_method as string)).toEqual(['scram-sha-256']);
			await sql.end();
			const wrong = postgres(cluster.url.replace(/:[^:@]*@/, ':wrong@'), {
				max: 1,
				onnotice: () => {}
			});
			await expect(wrong`select 1`).rejects.toThrow(/password authentication failed/);
			await wrong.end();
			const [pid] = readFileSync(join(cluster.dir, 'postmaster.pid'), 'utf8').split('\n');
			expect(statSync(`/proc/${pid}`).uid).not.toBe(0);
			expect(statSync(join(dataDir, 'one.secret')).mode & 0o077).toBe(0);
		} finally {
			await cluster.stop();
		}
	});

	/** A process that starts a cluster and holds it. */
	async function starter(name: string) {
		const child = spawn(
			process.execPath,
			[
				'--input-type=module',
				'-e',
				`const { startCluster } = await import('./scripts/lib/cluster.mjs');
				const { url, dir } = await startCluster(${JSON.stringify(name)}, { durable: false });
				console.log(JSON.stringify({ url, dir }));
				setInterval(() => {}, 1000);`
			],
			{ env: { ...process.env, GREVAN_DATA_DIR: dataDir }, stdio: ['ignore', 'pipe', 'inherit'] }
		);
		const cluster = await new Promise<{ url: string; dir: string }>((resolve, reject) => {
			child.stdout.once('data', (text) =>
				resolve(JSON.parse(String(text)) as { url: string; dir: string })
			);
			child.once('exit', () => reject(new Error('The starter ended.')));
		});
		const kill = async () => {
			const gone = new Promise((resolve) => child.once('exit', resolve));
			child.kill('SIGKILL');
			await gone;
		};
		return { ...cluster, kill };
	}
	const runners = (dir: string) =>
		readdirSync('/proc')
			.filter((entry) => /^\d+$/.test(entry))
			.filter((pid) => {
				try {
					const words = readFileSync(`/proc/${pid}/cmdline`, 'utf8').split('\0');
					return words.some((w) => w.endsWith('run-cluster.mjs')) && words.includes(dir);
				} catch {
					return false;
				}
			})
			.map(Number);

	it('is had by one process at a time, and stops when that one is killed', async () => {
		const other = await starter('held');
		await expect(scripts.startCluster('held')).rejects.toThrow(/Already running as process \d+/);
		expect(await scripts.runningCluster('held')).toBe(other.url);
		await other.kill();
		await vi.waitFor(async () => expect(await scripts.runningCluster('held')).toBeUndefined(), {
			timeout: 30_000,
			interval: 100
		});
		const own = await scripts.startCluster('held', { durable: false });
		await own.halt();
		scripts.removeCluster(own, 'held');
	});

	it('comes back with its data after everything around it was killed and left it running', async () => {
		const first = await starter('one');
		const sql = postgres(first.url, { max: 1 });
		await sql`create table kept as select 42 as answer`;
		await sql.end();
		const { dir } = first;
		for (const pid of runners(dir)) process.kill(pid, 'SIGKILL');
		const [left] = readFileSync(join(dir, 'postmaster.pid'), 'utf8').split('\n');
		await first.kill();
		expect(await scripts.runningCluster('one')).toBe(first.url);
		const second = await scripts.startCluster('one', { durable: false });
		const [now] = readFileSync(join(second.dir, 'postmaster.pid'), 'utf8').split('\n');
		expect(now).not.toBe(left);
		const again = postgres(second.url, { max: 1 });
		expect((await again`select answer from kept`)[0]).toEqual({ answer: 42 });
		await again.end();
		await second.stop();
		expect(await scripts.runningCluster('one')).toBeUndefined();
		scripts.removeCluster(second, 'one');
		expect(existsSync(second.dir)).toBe(false);
		expect(existsSync(join(dataDir, 'one.secret'))).toBe(false);
	});

	it('is run by the version that made it, and stays as it is where that is not installed', async () => {
		const cluster = await scripts.startCluster('old', { durable: false });
		await cluster.stop();
		const version = join(cluster.dir, 'PG_VERSION');
		const made = readFileSync(version, 'utf8');
		writeFileSync(version, '9\n');
		await expect(scripts.startCluster('old', { durable: false })).rejects.toThrow(
			/made by PostgreSQL 9; installed is \d+.*Nothing was touched.*database:upgrade/
		);
		writeFileSync(version, made);
		const again = await scripts.startCluster('old', { durable: false });
		await again.halt();
		scripts.removeCluster(again, 'old');
	});

	it('is taken over to another version whole, compared, and the old one kept', async () => {
		const upgrade = () =>
			run(process.execPath, ['scripts/database-upgrade.mjs', '--to', version], '');
		const made = await scripts.startCluster('database', { durable: false });
		const version = readFileSync(join(made.dir, 'PG_VERSION'), 'utf8').trim();
		const sql = postgres(made.url, { max: 1, onnotice: () => {} });
		await sql.unsafe(`create role passenger login password 'kept'; create schema jobs authorization passenger;
			create table holds (what text, at timestamptz default now());
			insert into holds select 'record ' || n from generate_series(1, 500) n`);
		await sql.end();
		// While it runs, nothing is taken over.
		const held = await upgrade();
		expect([held.code, held.out]).toEqual([1, '']);
		await made.stop();

		const done = await upgrade();
		expect(done.out).toMatch(/1 tables are the same in both.*The old one is kept in/s);
		expect(existsSync(`${made.dir}.before-${version}`)).toBe(true);
		const again = await scripts.startCluster('database', { durable: false });
		const opened = postgres(again.url, { max: 1 });
		expect(await opened`select count(*)::int as n from holds`).toEqual([{ n: 500 }]);
		expect(
			await opened`select nspowner::regrole::text as owner from pg_namespace where nspname = 'jobs'`
		).toEqual([{ owner: 'passenger' }]);
		await opened.end();
		await again.stop();

		// Killed between the two renames: nothing is begun anew, and it is finished by the next.
		renameSync(made.dir, `${made.dir}-next`);
		await expect(scripts.startCluster('database')).rejects.toThrow(/upgrade was interrupted/);
		expect((await upgrade()).out).toMatch(/interrupted is done/);
		expect(existsSync(join(made.dir, 'PG_VERSION'))).toBe(true);
		scripts.removeCluster(again, 'database');
		rmSync(`${made.dir}.before-${version}`, { recursive: true });
	});

	it('works, or stops with a sentence, after each of its files was removed; nothing else is gone', async () => {
		const made = await scripts.startCluster('torn', { durable: false });
		const sql = postgres(made.url, { max: 1 });
		await sql`create table holds (what text)`;
		await sql`insert into holds values ('the record')`;
		await sql.end();
		await made.stop();
		const whole = join(dataDir, 'whole');
		cpSync(made.dir, whole, { recursive: true, preserveTimestamps: true });
		const files = (dir: string) =>
			readdirSync(dir, { recursive: true, encoding: 'utf8' })
				.filter((name) => statSync(join(dir, name)).isFile())
				.sort();
		const before = files(whole);
		// One of each kind; all of them with FILES=all, which takes half an hour.
		const some = before.filter((name) =>
			/^(PG_VERSION|pg_hba\.conf|global\/pg_control|pg_wal\/0[^/]*|base\/5\/1259)$/.test(name)
		);
		const odd = [];
		for (const name of process.env.FILES === 'all' ? before : some) {
			rmSync(join(made.dir, name), { force: true });
			let said = '';
			try {
				const again = await scripts.startCluster('torn', { durable: false });
				const opened = postgres(again.url, { max: 1, onnotice: () => {} });
				// What was taken away may be missing in an answer; the server says so, or has made it anew.
				said = await opened`select what from holds`.then(
					([row]) => `works: ${row?.what}`,
					(error: Error) => `says: ${error.message}`
				);
				await opened.end();
				await again.halt();
			} catch (error) {
				said = `stops: ${(error as Error).message}`;
			}
			const gone = before.filter((one) => one !== name && !existsSync(join(made.dir, one)));
			// What a server writes anew as it runs: its log of changes, its notes of a start and a stop.
			const lost = gone.filter(
				(one) => !/^(pg_wal\/|postmaster\.opts|global\/pg_internal)/.test(one)
			);
			if (!/^(works: the record|says: .+|stops: .{20,})/s.test(said) || lost.length)
				odd.push({ name, said: said.slice(0, 200), lost });
			rmSync(made.dir, { recursive: true, force: true });
			cpSync(whole, made.dir, { recursive: true, preserveTimestamps: true });
			giveLike(whole, made.dir);
		}
		expect(odd).toEqual([]);
		rmSync(whole, { recursive: true });
		scripts.removeCluster(made, 'torn');
	});
});

/** Files that were copied belong to whom they belonged. */
function giveLike(from: string, to: string): void {
	for (const name of ['.', ...readdirSync(from, { recursive: true, encoding: 'utf8' })]) {
		const { uid, gid } = statSync(join(from, name));
		chownSync(join(to, name), uid, gid);
	}
}

describe('the lock of a start', () => {
	it('is had once, says who has it and where, and is free again when it is let go', async () => {
		const lock = await scripts.takeLock('start');
		lock.note('http://127.0.0.1:1');
		await expect(scripts.takeLock('start')).rejects.toThrow(
			`Already running as process ${process.pid}, http://127.0.0.1:1. End that one first.`
		);
		await lock.release();
		expect(existsSync(join(dataDir, 'start.lock'))).toBe(false);
		const again = await scripts.takeLock('start');
		await again.release();
	});

	it('is taken over from a start that is gone, whatever it left behind', async () => {
		writeFileSync(join(dataDir, 'start.lock'), `1\nhttp://127.0.0.1:1\n`);
		const lock = await scripts.takeLock('start');
		expect(readFileSync(join(dataDir, 'start.lock'), 'utf8')).toBe(`${process.pid}\n`);
		await lock.release();
	});

	it('goes to one of many that want it in the same moment', async () => {
		const all = await Promise.allSettled(Array.from({ length: 8 }, () => scripts.takeLock('rush')));
		const had = all.filter((one) => one.status === 'fulfilled');
		expect(had).toHaveLength(1);
		await had[0]?.value.release();
	});
});

describe('secrets', () => {
	it('are made whole, and one by many that want it in the same moment', async () => {
		const { secretFor } = await import('../../scripts/lib/secrets.mjs');
		expect(new Set(Array.from({ length: 5 }, () => secretFor('many'))).size).toBe(1);
		expect(readdirSync(dataDir).filter((name) => name.startsWith('many.secret'))).toEqual([
			'many.secret'
		]);
	});
});

describe('the calculation interface on the command line', () => {
	const calc = (args: string[], input: string) =>
		run(process.execPath, ['scripts/calc.mjs', ...args], input);

	it('lists, answers, and ends with 2 on bad input', async () => {
		const list = await calc([], '');
		for (const name of ['concentration', 'hazard', 'service-life', 'due'])
			expect(list.out).toContain(name);
		const good = await calc(
			['concentration'],
			'{"value":1,"unit":"ppm","molarMassGPerMol":70.9,"temperatureC":25}'
		);
		expect(good.code).toBe(0);
		// Published: NIOSH Pocket Guide, chlorine 2.90 mg/m³ per ppm at 25 °C; from memory.
		expect((JSON.parse(good.out) as { mgPerM3: number }).mgPerM3).toBeCloseTo(2.9, 2);
		const bad = await calc(['concentration'], '{"value":-1,"unit":"ppm","molarMassGPerMol":70.9}');
		expect(bad.code).toBe(2);
		expect(JSON.parse(bad.out)).toMatchObject({
			error: { code: 'invalid_input', issues: [{ path: 'value' }] }
		});
	});

	it('answers line by line and goes on after a bad one', async () => {
		const lines = [
			'{"rules":[{"every":{"months":1}}],"last":"2026-01-31","asOf":"2026-02-01"}',
			'nonsense',
			'{"rules":[{"every":{"days":7}}],"last":"2026-01-01","asOf":"2026-02-01"}'
		];
		const { out, code } = await calc(['due', '--lines'], `${lines.join('\n')}\n`);
		const answers = out
			.trim()
			.split('\n')
			.map((line) => JSON.parse(line) as Record<string, unknown>);
		expect(code).toBe(0);
		expect(answers.map((a) => a.state ?? 'error')).toEqual(['ready', 'error', 'overdue']);
	});
});
