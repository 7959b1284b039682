import {
	cpSync,
	createReadStream,
	existsSync,
	mkdtempSync,
	readFileSync,
	rmSync,
	writeFileSync
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createInterface } from 'node:readline';
import pg from 'pg';
import { migrateDatabase } from '../../src/lib/server/db/client.ts';
import { readManifest, requireHashes, unpackFile } from '../backup/file.ts';
import { proveChain, type Proven, requireSame } from '../backup/put.ts';
import { connected, rowsOf, stateOf } from '../backup/postgres.ts';
import { root } from '../lib/paths.mjs';
import { Stop } from '../lib/say.mjs';
import { ARCHIVE_VERSION, archiveManifest, type ArchiveManifest } from './format.ts';

const MIGRATIONS = join(root, 'src/lib/server/db/migrations');
/** Rows of one statement. */
const CHUNK = 400;
const name = pg.escapeIdentifier;

interface Journal {
	entries: { idx: number }[];
}
const journal = () =>
	JSON.parse(readFileSync(join(MIGRATIONS, 'meta/_journal.json'), 'utf8')) as Journal;

export interface OpenArchive {
	manifest: ArchiveManifest;
	/** Where a file of it lies. */
	place: (path: string) => string;
	close: () => void;
}

/**
 * Opens an archive into a folder and compares every file in it with its hash.
 * @throws Stop naming the file that was changed or is missing, or why it cannot be read here
 */
export async function openArchive(file: string, folder: string): Promise<OpenArchive> {
	if (!existsSync(file)) throw new Stop(`There is no ${file}.`);
	const base = mkdtempSync(join(folder, '.open-archive-'));
	const close = () => rmSync(base, { recursive: true, force: true });
	// A path of a file from elsewhere never leads out of the folder.
	const place = (path: string) => join(base, encodeURIComponent(path));
	try {
		const texts = await unpackFile(file, (path) =>
			path === 'manifest.json'
				? 'text'
				: /^(tables|attachments)\//.test(path)
					? { to: place(path) }
					: undefined
		);
		const manifest = readManifest(file, texts.get('manifest.json'), {
			kind: 'archive',
			newest: ARCHIVE_VERSION,
			schema: archiveManifest
		});
		const known = journal().entries.length;
		if (manifest.migrations > known)
			throw new Stop(
				`${file} was made by a newer Grevan: its schema has ${manifest.migrations} migrations, this program knows ${known}.`
			);
		await requireHashes(
			file,
			[
				...Object.values(manifest.tables).map((table) => [table.file, table.sha256] as const),
				...Object.entries(manifest.attachments)
			],
			place
		);
		return { manifest, place, close };
	} catch (error) {
		close();
		throw error;
	}
}

/** Brings an empty database to the schema that an archive is of. */
export async function migrateTo(url: string, migrations: number): Promise<void> {
	const all = journal();
	if (migrations >= all.entries.length) return migrateDatabase(url, MIGRATIONS);
	const folder = mkdtempSync(join(tmpdir(), 'grevan-migrations-'));
	try {
		cpSync(MIGRATIONS, folder, { recursive: true });
		writeFileSync(
			join(folder, 'meta/_journal.json'),
			JSON.stringify({ ...all, entries: all.entries.slice(0, migrations) })
		);
		await migrateDatabase(url, folder);
	} finally {
		rmSync(folder, { recursive: true, force: true });
	}
}

/**
 * Reads an archive into an empty database, in the schema that it is of, brings that to the newest, and proves it: rows
 * of every table, the end of the log, the whole chain and every record in it.
 * @param ownerUrl the owner, who may set the guards of the tables aside while it is read in
 * @throws Stop where the database is not empty, or what came out is not as the archive says
 */
export async function readArchive(archive: OpenArchive, ownerUrl: string): Promise<Proven> {
	const { manifest } = archive;
	await migrateTo(ownerUrl, manifest.migrations);
	const counts = await connected(ownerUrl, async (client) => {
		const { rows } = await client.query<{ n: string }>('select count(*) as n from "user"');
		if (Number(rows[0]?.n) > 0)
			throw new Stop('That database is not empty: an archive is read into a fresh one only.');
		await client.query('begin');
		// Hashes, times and numbers come in as they are.
		await client.query(`set local session_replication_role = replica`);
		for (const [table, about] of Object.entries(manifest.tables))
			await readTable(client, archive, table, about);
		await setSequences(client);
		await client.query('commit');
		const found = await rowsOf(client);
		const wanted = Object.fromEntries(
			Object.entries(manifest.tables).map(([table, { rows: n }]) => [table, n])
		);
		const kept = Object.fromEntries(
			Object.keys(wanted).flatMap((table) =>
				found[table] === undefined ? [] : [[table, found[table]]]
			)
		);
		requireSame(
			'archive',
			{ tables: wanted, log: manifest.log },
			{ tables: kept, log: (await stateOf(client)).log }
		);
		return kept;
	});
	await migrateDatabase(ownerUrl, MIGRATIONS);
	// Counted by triggers, which were set aside.
	await connected(ownerUrl, (client) => client.query('select recount_stock(), recount_entries()'));
	const check = await proveChain('archive', ownerUrl);
	const rows = Object.values(counts).reduce((sum, n) => sum + n, 0);
	return { rows, tables: Object.keys(counts).length, check };
}

async function readTable(
	client: pg.Client,
	{ place }: OpenArchive,
	table: string,
	{ file, columns }: ArchiveManifest['tables'][string]
): Promise<void> {
	const names = Object.keys(columns).map(name).join(', ');
	const bytes = Object.keys(columns).filter((column) => columns[column] === 'bytea');
	// What a migration itself put there comes from the archive instead.
	await client.query(`delete from ${name(table)}`);
	let rows: string[] = [];
	const put = async () => {
		if (rows.length === 0) return;
		await client.query(
			`insert into ${name(table)} (${names}) overriding system value
				select ${names} from jsonb_populate_recordset(null::${name(table)}, $1::jsonb)`,
			[`[${rows.join(',')}]`]
		);
		rows = [];
	};
	const lines = createInterface({
		input: createReadStream(place(file), 'utf8'),
		crlfDelay: Infinity
	});
	for await (const line of lines) {
		rows.push(bytes.length ? withBytes(line, bytes, place) : line);
		if (rows.length >= (bytes.length ? 20 : CHUNK)) await put();
	}
	await put();
}

/** A row with its bytes in the place of their paths. */
function withBytes(line: string, bytes: string[], place: (path: string) => string): string {
	const row = JSON.parse(line) as Record<string, unknown>;
	for (const column of bytes) {
		const path = row[column];
		if (typeof path === 'string') row[column] = `\\x${readFileSync(place(path)).toString('hex')}`;
	}
	return JSON.stringify(row);
}

/** Numbers that the database gives go on after the greatest that was read in. */
async function setSequences(client: pg.Client): Promise<void> {
	const { rows } = await client.query<{ table: string; column: string; sequence: string }>(
		`select c.table_name as table, c.column_name as column,
				pg_get_serial_sequence(quote_ident(c.table_name), c.column_name) as sequence
			from information_schema.columns c
			where c.table_schema = 'public' and pg_get_serial_sequence(quote_ident(c.table_name), c.column_name) is not null`
	);
	for (const { table, column, sequence } of rows)
		await client.query(
			`select setval($1, greatest(coalesce((select max(${name(column)}) from ${name(table)}), 0), 1),
				exists (select 1 from ${name(table)}))`,
			[sequence]
		);
}
