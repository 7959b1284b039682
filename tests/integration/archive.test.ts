import { randomUUID } from 'node:crypto';
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { z } from 'zod';
import { archiveManifest, BLANKED, LEFT_OUT } from '../../scripts/archive/format.ts';
import { migrateTo, openArchive, readArchive } from '../../scripts/archive/read.ts';
import { writeArchive } from '../../scripts/archive/write.ts';
import { packFile, unpackFile } from '../../scripts/backup/file.ts';
import { dropDatabase, makeDatabase } from '../../scripts/backup/put.ts';
import { connected, rowsOf } from '../../scripts/backup/postgres.ts';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { itemDue, itemState, recordHash } from '../../src/lib/server/db/schema/index.ts';
import { seedDemo } from '../../src/lib/server/demo/seed.ts';
import { createAuth } from '../../src/lib/server/web/auth.ts';
import { freshDatabase, type TestDatabase } from '../support/database.ts';

const folder = mkdtempSync(join(tmpdir(), 'grevan-archive-'));
const file = join(folder, 'site.grevan.zip');
const made: string[] = [];
let test: TestDatabase;
/** As the owner, who alone may read everything. */
const ownerUrl = () => {
	const at = new URL(process.env.TEST_DATABASE_URL ?? '');
	at.pathname = new URL(test.url).pathname;
	return at.href;
};
const scratch = async () => {
	const name = `t_archive_${randomUUID().slice(0, 8)}`;
	made.push(name);
	return makeDatabase(ownerUrl(), name);
};

beforeAll(async () => {
	test = await freshDatabase();
	const auth = createAuth(test.db, { secret: 's'.repeat(40), origin: 'http://localhost' });
	await seedDemo(test.db, auth, {
		now: new Date('2026-11-24T09:00:00Z'),
		password: 'a-long-password',
		items: 24,
		rounds: 2
	});
	// A picture, whose bytes go beside the tables.
	const run = randomUUID();
	await test.raw`insert into inspection_run (id, item_id, procedure, procedure_version, started_by, started_at)
		select ${run}, i.id, 'half-mask-pre-use', 2, u.id, now() from item i, "user" u
		where not exists (select 1 from inspection_run r where r.item_id = i.id and r.signed_at is null) limit 1`;
	await test.raw`insert into photo (id, run_id, step, jpeg, sha256, width, height, taken_by, taken_at)
		select ${randomUUID()}, r.id, 'lens', ${Buffer.from([255, 216, 0, 1, 10, 13, 255, 217])}, ${'0'.repeat(64)}, 1, 1, r.started_by, now()
		from inspection_run r where r.id = ${run}`;
	await writeArchive(ownerUrl(), file);
}, 120_000);
afterAll(async () => {
	for (const name of made) await dropDatabase(ownerUrl(), name);
	await test.close();
	rmSync(folder, { recursive: true, force: true });
});

const rowsIn = (url: string) => connected(url, rowsOf);
const judged = async (url: string) => {
	const { db, close } = openDatabase(url, { max: 1 });
	try {
		return {
			states: await db.select().from(itemState).orderBy(itemState.itemId),
			dues: (await db.select().from(itemDue)).map((row) => JSON.stringify(row)).sort(),
			hashes: await db.select().from(recordHash).orderBy(recordHash.kind, recordHash.recordId)
		};
	} finally {
		await close();
	}
};

describe('a site as an archive', () => {
	it('comes out of an empty database as it went in: counts, states, dues, hashes, bytes', async () => {
		const archive = await openArchive(file, folder);
		const url = await scratch();
		const read = await readArchive(archive, url);
		expect(read.check.entries).toBe(archive.manifest.log.seq);
		expect(read.check.records).toBeGreaterThan(20);
		const [before, after] = await Promise.all([rowsIn(ownerUrl()), rowsIn(url)]);
		const { stock_count: counted, entry_count: logged, ...others } = before;
		for (const [table, rows] of Object.entries(others))
			expect([table, after[table]]).toEqual([table, LEFT_OUT.includes(table) ? 0 : rows]);
		expect(await judged(url)).toEqual(await judged(ownerUrl()));
		// Counts of stock and of the log are left out and counted anew.
		expect(counted).toBeGreaterThan(0);
		expect(logged).toBeGreaterThan(0);
		await connected(url, async (client) => {
			const { rows } = await client.query(
				'select sum(items)::int as counted, (select count(*)::int from item_state) as kept from stock_count'
			);
			expect(rows[0].counted).toBe(rows[0].kept);
			const log = await client.query(
				'select sum(entries)::int as counted, (select count(*)::int from audit_entry) as kept from entry_count'
			);
			expect(log.rows[0].counted).toBe(log.rows[0].kept);
		});
		const bytes = await connected(url, async (client) => {
			const { rows } = await client.query<{ jpeg: Buffer }>('select jpeg from photo');
			return rows.map(({ jpeg }) => jpeg.toString('hex'));
		});
		expect(bytes).toContain('ffd800010a0dffd9');
		// What is made next goes on after what was read in, and nobody comes in by what was read.
		await connected(url, async (client) => {
			const { rows } = await client.query<{ pins: string }>(
				'select count(pin_hash) as pins from "user"'
			);
			expect(Number(rows[0]?.pins)).toBe(0);
			const next = await client.query<{ n: string }>(
				`select nextval(pg_get_serial_sequence('wash_batch', 'number')) as n`
			);
			const greatest = await client.query<{ n: string }>('select max(number) as n from wash_batch');
			expect(Number(next.rows[0]?.n)).toBeGreaterThan(Number(greatest.rows[0]?.n));
		});
		archive.close();
		expect(readdirSync(folder).filter((name) => name.startsWith('.'))).toEqual([]);
	}, 120_000);

	it('holds no secret of the installation', async () => {
		const archive = await openArchive(file, folder);
		for (const table of LEFT_OUT) expect(archive.manifest.tables[table], table).toBeUndefined();
		for (const [table, columns] of Object.entries(BLANKED))
			for (const column of columns)
				expect(archive.manifest.tables[table]?.columns[column], column).toBeUndefined();
		archive.close();
	});

	it('names the file that was changed, in bytes or in rows', async () => {
		const changed = join(folder, 'changed.zip');
		const places = new Map<string, string>();
		const texts = await unpackFile(file, (path) => {
			if (path === 'manifest.json') return 'text';
			const to = join(folder, encodeURIComponent(path));
			places.set(path, to);
			return { to };
		});
		const pack = (manifest: string) =>
			packFile(changed, {
				'manifest.json': { text: manifest },
				...Object.fromEntries([...places].map(([path, to]) => [path, { file: to }]))
			});
		const manifest = texts.get('manifest.json') ?? '';
		const items = places.get('tables/item.jsonl') ?? '';
		const whole = readFileSync(items, 'utf8');
		writeFileSync(items, whole.replace('HM-0', 'HM-1'));
		await pack(manifest);
		await expect(openArchive(changed, folder)).rejects.toThrow(/tables\/item\.jsonl has SHA-256/);
		writeFileSync(items, whole);

		const about = JSON.parse(manifest) as Record<string, unknown>;
		await pack(JSON.stringify({ ...about, version: 9 }));
		await expect(openArchive(changed, folder)).rejects.toThrow(/newer Grevan \(version 9/);
		await pack(JSON.stringify({ ...about, migrations: 9999 }));
		await expect(openArchive(changed, folder)).rejects.toThrow(/schema has 9999 migrations/);
		await pack(JSON.stringify({ ...about, tables: 'all' }));
		await expect(openArchive(changed, folder)).rejects.toThrow(/nothing readable at tables/);
		places.delete('tables/item.jsonl');
		await pack(manifest);
		await expect(openArchive(changed, folder)).rejects.toThrow(/item\.jsonl is missing/);
		writeFileSync(changed, 'PK no zip');
		await expect(openArchive(changed, folder)).rejects.toThrow(
			/no backup of Grevan|no archive|damaged/
		);
	}, 120_000);

	it('is read into an empty database only, and is never written over a file', async () => {
		const archive = await openArchive(file, folder);
		await expect(readArchive(archive, ownerUrl())).rejects.toThrow(/not empty/);
		archive.close();
		await expect(writeArchive(ownerUrl(), file)).rejects.toThrow(/is there already/);
	});
});

it('an archive of an older schema is read, and brought to the newest', async () => {
	const old = await scratch();
	await migrateTo(old, 40);
	await connected(old, async (client) => {
		await client.query(
			`insert into "user" (id, name, email) values ('u1', 'Łucja Ødegård', 'lucja@old.example')`
		);
		await client.query(
			`insert into audit_pending (actor_id, action, subject, payload) values ('u1', 'site.begun', 'site:1', '{"by":"Łucja"}')`
		);
	});
	const older = join(folder, 'older.zip');
	const { migrations, log } = await writeArchive(old, older);
	expect([migrations, log.seq]).toEqual([40, 1]);
	const archive = await openArchive(older, folder);
	const url = await scratch();
	const { check } = await readArchive(archive, url);
	expect(check.entries).toBe(1);
	archive.close();
	await connected(url, async (client) => {
		const { rows } = await client.query<{ name: string }>('select name from "user"');
		expect(rows).toEqual([{ name: 'Łucja Ødegård' }]);
		// A table that came after it is there.
		expect((await client.query('select 1 from backup')).rows).toEqual([]);
	});
}, 120_000);

it('the schema of the manifest is documented as it is', () => {
	const documented: unknown = JSON.parse(readFileSync('docs/archive.schema.json', 'utf8'));
	expect(documented).toEqual(z.toJSONSchema(archiveManifest));
});
