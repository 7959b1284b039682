import { createHash, randomUUID } from 'node:crypto';
import {
	createWriteStream,
	mkdirSync,
	mkdtempSync,
	readdirSync,
	readFileSync,
	rmSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import { pipeline } from 'node:stream/promises';
import { eq } from 'drizzle-orm';
import Papa from 'papaparse';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { unpackFile } from '../../scripts/backup/file.ts';
import { fieldOf, REGISTER_KEYS, REGISTERS } from '../../src/core/records/registers.ts';
import { auditEntry, user } from '../../src/lib/server/db/schema/index.ts';
import { seedDemo } from '../../src/lib/server/demo/seed.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';
import type { Role } from '../../src/lib/server/kernel/permissions.ts';
import { loadSite } from '../../src/lib/server/kernel/site.ts';
import { bundle } from '../../src/lib/server/papers/bundle.ts';
import {
	registerCsv,
	registerPage,
	registerRowsOf
} from '../../src/lib/server/records/registers.ts';
import { createAuth } from '../../src/lib/server/web/auth.ts';
import { freshDatabase, type TestDatabase } from '../support/database.ts';
import { expectRefusal } from '../support/refusal.ts';

const NOW = new Date('2026-11-24T09:00:00Z');
const EVER = { from: null, to: null };
const folder = mkdtempSync(join(tmpdir(), 'grevan-registers-'));
let test: TestDatabase;
let tech: Context;
let viewer: Context;

async function as(role: Role): Promise<Context> {
	const [found] = await test.db.select().from(user).where(eq(user.role, role)).limit(1);
	if (!found) throw new Error(`nobody is a ${role}`);
	const { id, name, initials } = found;
	return {
		db: test.db,
		site: await loadSite(test.db),
		actor: { id, name, initials, role },
		now: () => NOW,
		proof: null
	};
}

beforeAll(async () => {
	test = await freshDatabase();
	const auth = createAuth(test.db, { secret: 's'.repeat(40), origin: 'http://localhost' });
	await seedDemo(test.db, auth, { now: NOW, password: 'a-long-password', items: 40, rounds: 2 });
	[tech, viewer] = [await as('technician'), await as('viewer')];
}, 120_000);
afterAll(async () => {
	await test.close();
	rmSync(folder, { recursive: true, force: true });
});

describe('a register', () => {
	it.each(REGISTER_KEYS)(
		'%s: every row has every column, in what it says it holds',
		async (key) => {
			const { columns, period } = REGISTERS[key];
			const rows = await registerRowsOf(tech, key, EVER);
			// The demo has something of everything but the rules and exams of a site of its own.
			if (!['rules', 'exams'].includes(key)) expect(rows.length).toBeGreaterThan(0);
			for (const row of rows) {
				expect(Object.keys(row)).toEqual(Object.keys(columns));
				for (const [name, kind] of Object.entries(columns)) {
					const cell = row[name] ?? null;
					if (cell === null) continue;
					if (kind === 'number') expect(typeof cell, `${key} ${name}`).toBe('number');
					else if (kind === 'yes or no') expect(typeof cell, `${key} ${name}`).toBe('boolean');
					else if (kind === 'day') expect(cell, `${key} ${name}`).toMatch(/^\d{4}-\d\d-\d\d$/);
					else if (kind === 'moment')
						expect(cell, `${key} ${name}`).toMatch(/^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d\.\d{3}Z$/);
					else expect(typeof cell, `${key} ${name}`).toBe('string');
				}
			}
			if (period) {
				const at = rows.map((row) => String(row[period]));
				expect(at).toEqual([...at].sort());
			}
		}
	);

	it('comes page by page, each row once, as the file has them', async () => {
		const all = await registerRowsOf(tech, 'answers', EVER);
		const paged: unknown[] = [];
		for (let after: string | null = null; ;) {
			const page = await registerPage(tech, 'answers', { ...EVER, after, limit: 97 });
			paged.push(...page.rows.map((row) => row.id));
			if (page.next === null) break;
			expect(page.rows).toHaveLength(97);
			after = page.next;
		}
		expect(paged.length).toBeGreaterThan(200);
		expect(new Set(paged)).toEqual(new Set(all.map((row) => row.id)));
		expect(paged).toHaveLength(all.length);
		const [first] = (await registerPage(tech, 'cylinders', { ...EVER, after: null, limit: 1 }))
			.rows;
		expect(Object.keys(first ?? {})).toEqual(Object.keys(REGISTERS.cylinders.columns).map(fieldOf));
		expect(first).toHaveProperty('waterVolumeL');
	});

	it('of some days has what was done on them, by the clock of the site, and no more', async () => {
		const all = await registerRowsOf(tech, 'inspections', EVER);
		const day = String(all[0]?.['signed at']).slice(0, 10);
		const some = await registerRowsOf(tech, 'inspections', { from: day, to: day });
		expect(some.length).toBeGreaterThan(0);
		expect(some).toEqual(all.filter((row) => String(row['signed at']).startsWith(day)));
		await expectRefusal(
			registerRowsOf(tech, 'items', { from: day, to: day }),
			'invalid',
			/have no period/
		);
		await expectRefusal(
			registerRowsOf(tech, 'fills', { from: '2026-02-02', to: '2026-02-01' }),
			'invalid',
			/before the first/
		);
		await expectRefusal(
			registerPage(tech, 'fills', { ...EVER, after: "x' or 1=1", limit: 5 }),
			'invalid',
			/none of the/
		);
	});

	it('as CSV is read back cell by cell; who wore what is not for everybody', async () => {
		const csv = await registerCsv(tech, 'fit-tests', EVER);
		const rows = (await registerRowsOf(tech, 'fit-tests', EVER)).length;
		const read = Papa.parse<Record<string, string>>(csv.replace('\uFEFF', ''), {
			header: true,
			skipEmptyLines: true
		});
		expect(read.errors).toEqual([]);
		expect(read.meta.fields).toEqual(Object.keys(REGISTERS['fit-tests'].columns));
		expect(read.data).toHaveLength(rows);
		expect(read.data.every(({ passed }) => passed === 'yes' || passed === 'no')).toBe(true);
		for (const key of REGISTER_KEYS.filter((one) => REGISTERS[one].see === 'see wearers'))
			await expectRefusal(registerCsv(viewer, key, EVER), 'forbidden', /technician/);
		expect((await registerRowsOf(viewer, 'items', EVER)).length).toBeGreaterThan(20);
	});
});

describe('the bundle of a period', () => {
	const month = { from: '2026-10-05', to: '2026-10-18' };
	const proof = { anchor: null, origin: 'http://grevan.test' };

	it('holds every register and paper, each with its hash; that it was taken is in the log', async () => {
		const { zip, name } = await bundle(tech, { id: randomUUID(), ...month }, proof);
		expect(name).toBe('grevan-2026-10-05-to-2026-10-18.zip');
		const file = join(folder, name);
		await pipeline(zip, createWriteStream(file));
		const to = join(folder, 'out');
		await unpackFile(file, (path) => {
			mkdirSync(dirname(join(to, path)), { recursive: true });
			return { to: join(to, path) };
		});
		const bytes = readFileSync(join(to, 'manifest.json'));
		const manifest = JSON.parse(bytes.toString()) as {
			files: Record<string, string>;
			papers: number;
			leftOut: unknown[];
			registers: Record<string, { rows: number }>;
		};
		expect(manifest.leftOut).toEqual([]);
		for (const [path, hash] of Object.entries(manifest.files))
			expect(
				createHash('sha256')
					.update(readFileSync(join(to, path)))
					.digest('hex'),
				path
			).toBe(hash);
		const inspections = await registerRowsOf(tech, 'inspections', month);
		expect(inspections.length).toBeGreaterThan(5);
		expect(readdirSync(join(to, 'papers/inspection'))).toHaveLength(inspections.length);
		expect(manifest.registers.inspections?.rows).toBe(inspections.length);
		expect(Object.keys(manifest.registers)).toEqual(REGISTER_KEYS);
		expect(Object.keys(manifest.files)).toHaveLength(REGISTER_KEYS.length + manifest.papers);
		const [entry] = await test.db
			.select()
			.from(auditEntry)
			.where(eq(auditEntry.action, 'records.bundled'));
		expect(JSON.parse(entry?.payload ?? '{}')).toMatchObject({
			...month,
			sha256: createHash('sha256').update(bytes).digest('hex')
		});
	}, 120_000);

	it('is refused before anything goes out: to a viewer, turned round, of more than a year', async () => {
		const ask = (context: Context, from: string, to: string) =>
			bundle(context, { id: randomUUID(), from, to }, proof);
		await expectRefusal(ask(viewer, month.from, month.to), 'forbidden', /technician/);
		await expectRefusal(ask(tech, month.to, month.from), 'invalid', /before the first/);
		await expectRefusal(ask(tech, '2025-01-01', '2026-02-01'), 'too much', /a year/);
	});

	it('that nobody takes to its end leaves nothing in the log', async () => {
		const before = await test.db
			.select()
			.from(auditEntry)
			.where(eq(auditEntry.action, 'records.bundled'));
		const { zip } = await bundle(tech, { id: randomUUID(), ...month }, proof);
		const closed = new Promise((resolve) => zip.once('close', resolve));
		zip.destroy();
		await closed;
		// What was under way sees it at its next file.
		await expect
			.poll(async () => (await test.raw`select 1 from import_progress`).length, { timeout: 60_000 })
			.toBe(0);
		expect(
			await test.db.select().from(auditEntry).where(eq(auditEntry.action, 'records.bundled'))
		).toEqual(before);
	}, 120_000);
});
