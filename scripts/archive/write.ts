import { createHash } from 'node:crypto';
import {
	createWriteStream,
	existsSync,
	mkdirSync,
	mkdtempSync,
	rmSync,
	writeFileSync,
	renameSync
} from 'node:fs';
import { once } from 'node:events';
import { dirname, join } from 'node:path';
import pg from 'pg';
import { packFile, sha256File } from '../backup/file.ts';
import { connected, stateOf } from '../backup/postgres.ts';
import { Stop } from '../lib/say.mjs';
import { ARCHIVE_VERSION, type ArchiveManifest, BLANKED, LEFT_OUT } from './format.ts';

/** Rows that are held in memory at once. */
const CHUNK = 500;
const name = pg.escapeIdentifier;

interface Column {
	name: string;
	type: string;
}

/** Columns that hold data, in the order of the table; what the database works out itself is left out. */
async function columnsOf(client: pg.Client, table: string): Promise<Column[]> {
	const { rows } = await client.query<Column>(
		`select column_name as name, format_type(a.atttypid, a.atttypmod) as type
			from information_schema.columns c
			join pg_attribute a on a.attrelid = ('public.' || quote_ident(c.table_name))::regclass and a.attname = c.column_name
			where c.table_schema = 'public' and c.table_name = $1 and c.is_generated = 'NEVER' order by c.ordinal_position`,
		[table]
	);
	return rows.filter((column) => !BLANKED[table]?.includes(column.name));
}

/** Columns by which the rows of a table are told apart; all of them where it has no key. */
async function keyOf(client: pg.Client, table: string): Promise<string[]> {
	const { rows } = await client.query<{ name: string }>(
		`select a.attname as name from pg_index i join pg_attribute a on a.attrelid = i.indrelid and a.attnum = any(i.indkey)
			where i.indrelid = ('public.' || quote_ident($1))::regclass and i.indisprimary order by array_position(i.indkey::int[], a.attnum::int)`,
		[table]
	);
	return rows.map((row) => row.name);
}

/**
 * Writes a whole site as one file: a ZIP of JSON lines with a manifest, pictures beside them, all of one moment.
 * @param url a role that may read all of it: the owner, or that of the application
 * @param told hears how many of the tables are written
 * @returns what it holds
 * @throws Stop where the file is there already
 */
export async function writeArchive(
	url: string,
	to: string,
	told: (done: number, total: number) => void = () => {}
): Promise<ArchiveManifest> {
	if (existsSync(to)) throw new Stop(`${to} is there already.`);
	mkdirSync(dirname(to), { recursive: true });
	const folder = mkdtempSync(join(dirname(to), '.archive-'));
	try {
		const parts: Record<string, { file: string } | { text: string }> = {};
		const manifest = await connected(url, async (client) => {
			await client.query('begin isolation level repeatable read read only');
			const state = await stateOf(client);
			const written: ArchiveManifest = {
				format: 'grevan-archive',
				version: ARCHIVE_VERSION,
				at: new Date().toISOString(),
				...state,
				tables: {},
				attachments: {}
			};
			const { rows } = await client.query<{ table: string }>(
				`select table_name as table from information_schema.tables
					where table_schema = 'public' and table_type = 'BASE TABLE' order by 1`
			);
			const kept = rows.filter(({ table }) => !LEFT_OUT.includes(table));
			for (const [i, { table }] of kept.entries()) {
				told(i, kept.length);
				const columns = await columnsOf(client, table);
				const file = `tables/${table}.jsonl`;
				const place = join(folder, `${table}.jsonl`);
				const count = await writeTable(client, { table, columns, place, folder, written, parts });
				parts[file] = { file: place };
				written.tables[table] = {
					file,
					rows: count,
					sha256: await sha256File(place),
					columns: Object.fromEntries(columns.map((column) => [column.name, column.type]))
				};
			}
			await client.query('commit');
			return written;
		});
		parts['manifest.json'] = { text: JSON.stringify(manifest, null, '\t') };
		const aside = join(folder, 'archive.zip');
		await packFile(aside, parts, { compress: true });
		renameSync(aside, to);
		return manifest;
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

interface TableJob {
	table: string;
	columns: Column[];
	place: string;
	folder: string;
	written: ArchiveManifest;
	parts: Record<string, { file: string } | { text: string }>;
}

async function writeTable(client: pg.Client, job: TableJob): Promise<number> {
	const { table, columns, place } = job;
	const bytes = columns.filter(({ type }) => type === 'bytea');
	const plain = columns.filter(({ type }) => type !== 'bytea');
	const key = await keyOf(client, table);
	await client.query(
		`declare rows no scroll cursor for
			select row_to_json(x)::text as line${bytes.map((column) => `, t.${name(column.name)}`).join('')}
			from ${name(table)} t
			cross join lateral (select ${plain.map((column) => `t.${name(column.name)}`).join(', ')}) x
			order by ${(key.length ? key : plain.map((column) => column.name)).map((column) => `t.${name(column)}`).join(', ')}`
	);
	const out = createWriteStream(place, { mode: 0o600 });
	let count = 0;
	for (;;) {
		const { rows } = await client.query<Record<string, unknown>>(`fetch ${CHUNK} from rows`);
		if (rows.length === 0) break;
		for (const row of rows) {
			count++;
			const line = bytes.length
				? JSON.stringify({
						...(JSON.parse(String(row.line)) as object),
						...attach(job, row, bytes, count)
					})
				: String(row.line);
			if (!out.write(`${line}\n`)) await once(out, 'drain');
		}
	}
	out.end();
	await once(out, 'finish');
	await client.query('close rows');
	return count;
}

/** Puts the bytes of a row into files of their own; the row names them. */
function attach(
	{ table, folder, written, parts }: TableJob,
	row: Record<string, unknown>,
	bytes: Column[],
	count: number
): Record<string, string | null> {
	return Object.fromEntries(
		bytes.map((column) => {
			const value = row[column.name];
			if (!Buffer.isBuffer(value)) return [column.name, null];
			const path = `attachments/${table}/${column.name}-${count}`;
			const place = join(folder, `${table}-${column.name}-${count}`);
			writeFileSync(place, value, { mode: 0o600 });
			parts[path] = { file: place };
			written.attachments[path] = createHash('sha256').update(value).digest('hex');
			return [column.name, path];
		})
	);
}
