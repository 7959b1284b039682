import { existsSync, mkdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { backupsIn, nameAt } from '../lib/backups.mjs';
import { Stop } from '../lib/say.mjs';
import {
	BACKUP_VERSION,
	isEncrypted,
	type Manifest,
	manifestSchema,
	packFile,
	plainOf,
	readManifest,
	requireHashes,
	sha256File,
	unpackFile
} from './file.ts';
import { connected, contentsOf, rowsOf, stateOf, tool } from './postgres.ts';

export const DUMP = 'database.dump';
export const ANCHORS = 'anchors.jsonl';

export interface Taken {
	file: string;
	manifest: Manifest;
	bytes: number;
	sha256: string;
	encrypted: boolean;
	seconds: number;
}

/**
 * Takes a backup of one moment while others go on writing, reads it back, and drops the oldest beyond those that are kept.
 * @param options anchors: the signed ends of the log, taken along where they are kept
 * @throws Stop where it cannot be taken or does not read back
 */
export async function takeBackup(
	ownerUrl: string,
	folder: string,
	options: { keep: number; passphrase?: string; anchors?: string; now?: Date }
): Promise<Taken> {
	const began = Date.now();
	const at = options.now ?? new Date();
	mkdirSync(folder, { recursive: true, mode: 0o700 });
	const file = join(folder, nameAt(at));
	if (existsSync(file))
		throw new Stop(`${file} is there already: it was taken within this second.`);
	let read: Manifest;
	const [dump, aside] = [`${file}.dump`, `${file}.unfinished`];
	try {
		const said = await connected(ownerUrl, async (client) => {
			// What is counted and what is copied are of the same moment, whoever writes meanwhile.
			await client.query('begin isolation level repeatable read read only');
			const { rows } = await client.query<{ id: string }>('select pg_export_snapshot() as id');
			const state = await stateOf(client);
			const tables = await rowsOf(client);
			await tool('pg_dump', ownerUrl, [
				// The queue of what is to be sent makes its own tables anew.
				...['--format=custom', '--no-owner', '--no-acl', '--exclude-schema=jobs'],
				...[`--snapshot=${rows[0]?.id ?? ''}`, `--file=${dump}`]
			]);
			await client.query('commit');
			return { ...state, tables };
		});
		const anchors = options.anchors && existsSync(options.anchors) ? options.anchors : undefined;
		const manifest: Manifest = {
			format: 'grevan-backup',
			version: BACKUP_VERSION,
			at: at.toISOString(),
			site: said.site,
			migrations: said.migrations,
			tables: said.tables,
			log: said.log,
			files: {
				[DUMP]: await sha256File(dump),
				...(anchors ? { [ANCHORS]: await sha256File(anchors) } : {})
			}
		};
		await packFile(
			aside,
			{
				'manifest.json': { text: JSON.stringify(manifest, null, '\t') },
				[DUMP]: { file: dump },
				...(anchors ? { [ANCHORS]: { file: anchors } } : {})
			},
			{ passphrase: options.passphrase }
		);
		rmSync(dump, { force: true });
		const opened = await openBackup(aside, folder, options.passphrase);
		opened.close();
		renameSync(aside, file);
		read = opened.manifest;
	} finally {
		for (const left of [dump, aside]) rmSync(left, { force: true });
	}
	const kept = backupsIn(folder);
	// Never the one that was just taken.
	for (const old of kept.slice(0, Math.max(0, kept.length - Math.max(1, options.keep))))
		rmSync(old, { force: true });
	return {
		file,
		manifest: read,
		bytes: statSync(file).size,
		sha256: await sha256File(file),
		encrypted: await isEncrypted(file),
		seconds: (Date.now() - began) / 1000
	};
}

export interface OpenBackup {
	manifest: Manifest;
	/** The copy of the database, as PostgreSQL's own programs read it. */
	dump: string;
	/** The signed ends of the log, where they were taken along. */
	anchors: string | null;
	close: () => void;
}

/**
 * Opens a backup into a folder and compares every file in it with its hash.
 * @throws Stop naming what is wrong: not a backup, newer than this program, encrypted, damaged
 */
export async function openBackup(
	file: string,
	folder: string,
	passphrase?: string
): Promise<OpenBackup> {
	if (!existsSync(file)) throw new Stop(`There is no ${file}.`);
	const base = join(folder, `.open-${process.pid}-${Date.now()}`);
	const [plain, dump, anchors] = [`${base}.zip`, `${base}.dump`, `${base}.anchors`];
	const close = () => {
		for (const left of [plain, dump, anchors]) rmSync(left, { force: true });
	};
	try {
		const texts = await unpackFile(await plainOf(file, plain, passphrase), (name) =>
			name === DUMP
				? { to: dump }
				: name === ANCHORS
					? { to: anchors }
					: name === 'manifest.json'
						? 'text'
						: undefined
		);
		const manifest = readManifest(file, texts.get('manifest.json'), {
			kind: 'backup',
			newest: BACKUP_VERSION,
			schema: manifestSchema
		});
		const places: Record<string, string> = { [DUMP]: dump, [ANCHORS]: anchors };
		await requireHashes(file, Object.entries(manifest.files), (name) => places[name]);
		if ((await contentsOf(dump)).length === 0) throw new Stop(`${file} holds an empty copy.`);
		return { manifest, dump, anchors: existsSync(anchors) ? anchors : null, close };
	} catch (error) {
		close();
		throw error;
	}
}
