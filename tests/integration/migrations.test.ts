import { cpSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import postgres from 'postgres';
import { migrateDatabase } from '../../src/lib/server/db/client.ts';
import { fillTables, wordsOf } from '../support/filler.ts';

const FOLDER = 'src/lib/server/db/migrations';
interface Journal {
	entries: { idx: number; tag: string }[];
}
const journal = JSON.parse(readFileSync(join(FOLDER, 'meta/_journal.json'), 'utf8')) as Journal;
const admin = process.env.TEST_DATABASE_URL ?? '';
const name = `m_${randomBytes(5).toString('hex')}`;
const urlOf = (database: string) => admin.replace(/\/[^/]*$/, `/${database}`);
/** A filter without a code was never taken in. */
const ALWAYS = ['filter_model.code_en'];
let root: postgres.Sql;
let folders: string;
/** What the application ever wrote into columns of words. */
let words: Map<string, string[]>;

/** The migrations up to one, as they were when it was the newest. */
function upTo(idx: number): string {
	const folder = join(folders, String(idx));
	cpSync(FOLDER, folder, { recursive: true });
	const entries = journal.entries.filter((entry) => entry.idx <= idx);
	writeFileSync(join(folder, 'meta/_journal.json'), JSON.stringify({ ...journal, entries }));
	return folder;
}

beforeAll(async () => {
	folders = mkdtempSync(join(tmpdir(), 'grevan-migrations-'));
	root = postgres(admin, { max: 1, onnotice: () => {} });
	await root.unsafe(`create database ${name}`);
	await root.unsafe(`create database ${name}_newest`);
	await migrateDatabase(urlOf(`${name}_newest`), FOLDER);
	words = await within(`${name}_newest`, wordsOf);
});
afterAll(async () => {
	for (const one of [name, `${name}_newest`])
		await root.unsafe(`drop database ${one} with (force)`);
	await root.end();
	rmSync(folders, { recursive: true, force: true });
});

const within = async <T>(database: string, work: (sql: postgres.Sql) => Promise<T>) => {
	const sql = postgres(urlOf(database), { max: 1, onnotice: () => {} });
	try {
		return await work(sql);
	} finally {
		await sql.end();
	}
};
const counted = (database: string, tables: readonly string[]) =>
	within(database, async (sql) => {
		const rows: Record<string, number> = {};
		for (const table of tables) {
			const [found] = await sql.unsafe<{ n: number }[]>(
				`select count(*)::int as n from "${table}"`
			);
			rows[table] = found?.n ?? 0;
		}
		return rows;
	});

describe('a database that was left at', () => {
	/** Tables and the guards of them came together: nobody worked in between. */
	const left = journal.entries.filter(
		({ idx }) => !journal.entries[idx + 1]?.tag.endsWith('_guards')
	);

	it.each(left.map(({ idx, tag }) => [tag, idx] as const))(
		'%s is brought to the newest with all that is in it',
		async (_, idx) => {
			await migrateDatabase(urlOf(name), upTo(idx));
			const old = `${name}_${idx}`;
			await root.unsafe(`create database ${old} template ${name}`);
			try {
				const filled = await within(old, (sql) => fillTables(sql, words, ALWAYS));
				// Most tables take made-up rows; those that ask for more are the few.
				const [all] = await within(
					old,
					(sql) =>
						sql<
							{ n: number }[]
						>`select count(*)::int as n from pg_tables where schemaname = 'public'`
				);
				expect(filled.size).toBeGreaterThan((all?.n ?? 0) / 2);
				const before = await counted(old, [...filled.keys()]);
				await migrateDatabase(urlOf(old), FOLDER);
				const after = await counted(old, [...filled.keys()]);
				for (const [table, rows] of Object.entries(before))
					expect(after[table], table).toBeGreaterThanOrEqual(rows);
			} finally {
				await root.unsafe(`drop database ${old} with (force)`);
			}
		}
	);
});
