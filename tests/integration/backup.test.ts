import { randomUUID } from 'node:crypto';
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import yazl from 'yazl';
import { packFile, plainOf, unpackFile } from '../../scripts/backup/file.ts';
import { dropDatabase, fillFrom, makeDatabase, swapDatabases } from '../../scripts/backup/put.ts';
import { connected, rowsOf } from '../../scripts/backup/postgres.ts';
import { openBackup, takeBackup } from '../../scripts/backup/take.ts';
import { backupsIn } from '../../scripts/lib/backups.mjs';
import { anchorHead } from '../../src/lib/server/kernel/anchors.ts';
import { lastBackup, noteBackup } from '../../src/lib/server/records/backups.ts';
import { openYard } from '../support/database.ts';
import { inspect } from '../support/work.ts';

const own = openYard();
const folder = mkdtempSync(join(tmpdir(), 'grevan-backup-'));
/** As the owner, who alone may read everything. */
const url = () => {
	const at = new URL(process.env.TEST_DATABASE_URL ?? '');
	at.pathname = new URL(own.test.url).pathname;
	return at.href;
};
const made: string[] = [];
const keys = { key: join(folder, 'key.pem'), file: join(folder, 'anchors.jsonl') };
const tech = () => own.yard.as(own.yard.people.technician);
const note = (file = '/x/grevan-x.backup', now?: Date) => {
	const { actor: _, ...unattended } = own.yard.as(own.yard.people.technician, now);
	return noteBackup(unattended, {
		file,
		bytes: 10,
		sha256: 'ab',
		encrypted: false,
		seconds: 1,
		entries: 4
	});
};
let at = Date.now();
const take = (options: Partial<Parameters<typeof takeBackup>[2]> = {}) =>
	takeBackup(url(), join(folder, 'kept'), { keep: 20, now: new Date((at += 1000)), ...options });
const scratch = async () => {
	const name = `t_drill_${randomUUID().slice(0, 8)}`;
	made.push(name);
	return { name, url: await makeDatabase(url(), name) };
};

beforeAll(async () => {
	await inspect(tech(), 'HM-0001');
	await anchorHead(own.test.db, keys, 'interval', new Date());
});
afterAll(async () => {
	for (const name of made) await dropDatabase(url(), name);
	rmSync(folder, { recursive: true, force: true });
});

describe('a backup', () => {
	it('comes back whole: every row, the log and its signed ends', async () => {
		const taken = await take({ anchors: keys.file });
		const backup = await openBackup(taken.file, folder);
		try {
			const fresh = await scratch();
			const proven = await fillFrom(backup, fresh.url, keys.key);
			expect(proven.check.entries).toBe(taken.manifest.log.seq);
			expect([proven.check.anchors, proven.check.records]).toEqual([1, 1]);
			expect(proven.rows).toBeGreaterThan(50);
			const [here, there] = await Promise.all(
				[url(), fresh.url].map((one) => connected(one, rowsOf))
			);
			expect(there).toEqual(here);
		} finally {
			backup.close();
		}
		expect(readdirSync(folder).filter((name) => name.startsWith('.open'))).toEqual([]);
	});

	it('is of one moment while twenty go on writing', async () => {
		let going = true;
		let written = 0;
		const writers = Array.from({ length: 20 }, async () => {
			while (going) {
				await note();
				written++;
			}
		});
		try {
			await expect.poll(() => written, { timeout: 60_000 }).toBeGreaterThan(20);
			const before = written;
			const taken = await take();
			expect(written).toBeGreaterThan(before);
			const backup = await openBackup(taken.file, folder);
			// The counts, the end of the log and every hash agree: nothing of it is half there.
			const fresh = await scratch();
			expect((await fillFrom(backup, fresh.url)).check.entries).toBe(taken.manifest.log.seq);
			backup.close();
		} finally {
			going = false;
			await Promise.all(writers);
		}
	});

	it('says where a byte was changed, or that it is none', async () => {
		const { file } = await take();
		const bytes = readFileSync(file);
		const changed = join(folder, 'changed.backup');
		// Far inside the copy of the database, which is stored as it is.
		bytes[Math.floor(bytes.length / 2)] = (bytes[Math.floor(bytes.length / 2)] ?? 0) ^ 1;
		writeFileSync(changed, bytes);
		await expect(openBackup(changed, folder)).rejects.toThrow(/database\.dump has SHA-256|damaged/);
		writeFileSync(changed, bytes.subarray(0, 400));
		await expect(openBackup(changed, folder)).rejects.toThrow(/no backup of Grevan|damaged/);
		writeFileSync(changed, 'tag,model\n');
		await expect(openBackup(changed, folder)).rejects.toThrow(/no backup of Grevan/);
		await expect(openBackup(join(folder, 'none'), folder)).rejects.toThrow(/There is no/);
	});

	it('of a newer Grevan is refused with a sentence', async () => {
		const { file } = await take();
		const dump = join(folder, 'x.dump');
		const texts = await unpackFile(file, (name) =>
			name === 'manifest.json' ? 'text' : { to: dump }
		);
		const manifest = JSON.parse(texts.get('manifest.json') ?? '') as Record<string, unknown>;
		const newer = join(folder, 'newer.backup');
		const write = (change: Record<string, unknown>) =>
			packFile(newer, {
				'manifest.json': { text: JSON.stringify({ ...manifest, ...change }) },
				'database.dump': { file: dump }
			});
		await write({ version: 9 });
		await expect(openBackup(newer, folder)).rejects.toThrow(/newer Grevan \(version 9/);
		await write({ migrations: 9999 });
		const backup = await openBackup(newer, folder);
		await expect(fillFrom(backup, (await scratch()).url)).rejects.toThrow(/9999 migrations/);
		backup.close();
		// One that claims other rows than it holds does not prove.
		await write({ tables: { ...(manifest.tables as object), item: 99_999 } });
		const wrong = await openBackup(newer, folder);
		await expect(fillFrom(wrong, (await scratch()).url)).rejects.toThrow(
			/item has \d+ rows, not 99999/
		);
		wrong.close();
	});

	it('that is encrypted opens with its passphrase alone', async () => {
		const taken = await take({ passphrase: 'øl og ost' });
		expect(taken.encrypted).toBe(true);
		expect(readFileSync(taken.file).includes('manifest.json')).toBe(false);
		await expect(openBackup(taken.file, folder)).rejects.toThrow(/is encrypted/);
		await expect(openBackup(taken.file, folder, 'other')).rejects.toThrow(/another passphrase/);
		const backup = await openBackup(taken.file, folder, 'øl og ost');
		expect(backup.manifest.log).toEqual(taken.manifest.log);
		backup.close();
		const cut = join(folder, 'cut.backup');
		writeFileSync(cut, readFileSync(taken.file).subarray(0, 2000));
		await expect(plainOf(cut, `${cut}.zip`, 'øl og ost')).rejects.toThrow(/does not open/);
	});

	it('drops the oldest beyond those that are kept, and nothing else in the folder', async () => {
		const kept = join(folder, 'few');
		mkdirSync(kept);
		writeFileSync(join(kept, 'grevan-notes.backup'), 'mine');
		const files: string[] = [];
		for (let i = 0; i < 4; i++)
			files.push((await takeBackup(url(), kept, { keep: 2, now: new Date((at += 1000)) })).file);
		expect(backupsIn(kept)).toEqual(files.slice(2));
		expect(readdirSync(kept)).toHaveLength(3);
	});

	it('that was taken is noted once, and is the last', async () => {
		await note('/x/grevan-a.backup', new Date('2027-01-01T02:00:00Z'));
		expect(await lastBackup(own.test.db)).toMatchObject({ file: 'grevan-a.backup', entries: 4 });
	});
});

it('a restored database takes the place of the one before, which is kept', async () => {
	const [place, fresh] = [await scratch(), await scratch()];
	await connected(place.url, (client) => client.query('create table old (n int)'));
	await connected(fresh.url, (client) => client.query('create table new (n int)'));
	const kept = await swapDatabases(place.url, fresh.name, '20261201');
	made.push(kept);
	const tables = async (name: string) =>
		Object.keys(await connected(url().replace(/\/[^/]*$/, `/${name}`), rowsOf));
	expect(await tables(place.name)).toEqual(['new']);
	expect(await tables(kept)).toEqual(['old']);
});

it('a ZIP that holds something else is no backup', async () => {
	const file = join(folder, 'other.zip');
	const zip = new yazl.ZipFile();
	zip.addBuffer(Buffer.from('x'), 'x.txt');
	zip.end();
	const parts: Buffer[] = [];
	for await (const part of zip.outputStream) parts.push(Buffer.from(part as Uint8Array));
	writeFileSync(file, Buffer.concat(parts));
	await expect(openBackup(file, folder)).rejects.toThrow(/holds no manifest/);
});
