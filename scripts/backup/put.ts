import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { openDatabase } from '../../src/lib/server/db/client.ts';
import { type AnchorsRead, readAnchors } from '../../src/lib/server/kernel/anchors.ts';
import { verifyChain, type ChainCheck } from '../../src/lib/server/kernel/chain.ts';
import { root } from '../lib/paths.mjs';
import { Stop } from '../lib/say.mjs';
import { connected, databaseAt, rowsOf, stateOf, tool } from './postgres.ts';
import type { OpenBackup } from './take.ts';

/** The database that a server always has, from which others are made, dropped and renamed. */
const BESIDE = 'template1';
const MIGRATIONS = join(root, 'src/lib/server/db/migrations');

/** A database of a name, made anew. */
export async function makeDatabase(url: string, name: string): Promise<string> {
	await connected(databaseAt(url, BESIDE), async (client) => {
		await client.query(`create database ${pg.escapeIdentifier(name)} template template0`);
	});
	return databaseAt(url, name);
}

export const dropDatabase = (url: string, name: string) =>
	connected(databaseAt(url, BESIDE), async (client) => {
		await client.query(`drop database if exists ${pg.escapeIdentifier(name)} with (force)`);
	});

export interface Proven {
	rows: number;
	tables: number;
	check: ChainCheck;
}

/**
 * Fills an empty database from a backup and proves it: rows of each table, the end of the log, and the whole chain.
 * @param key the key that the ends of the log are signed with; without it their signatures are not compared
 * @throws Stop naming what is not as the backup says
 */
export async function fillFrom(backup: OpenBackup, url: string, key?: string): Promise<Proven> {
	const known = readdirSync(MIGRATIONS).filter((name) => name.endsWith('.sql')).length;
	if (backup.manifest.migrations > known)
		throw new Stop(
			`The backup is of a newer Grevan: its database has ${backup.manifest.migrations} migrations, this program knows ${known}.`
		);
	await tool('pg_restore', url, [
		...['--exit-on-error', '--single-transaction', '--no-owner', '--no-acl'],
		backup.dump
	]);
	return prove(backup, url, key);
}

async function prove(
	{ manifest, anchors }: OpenBackup,
	url: string,
	key?: string
): Promise<Proven> {
	const found = await connected(url, async (client) => ({
		tables: await rowsOf(client),
		log: (await stateOf(client)).log
	}));
	requireSame('backup', manifest, found);
	const signed =
		key && existsSync(key) && anchors ? await readAnchors({ key, file: anchors }) : undefined;
	const check = await proveChain('backup', url, signed);
	const counts = Object.values(found.tables);
	return { rows: counts.reduce((sum, n) => sum + n, 0), tables: counts.length, check };
}

interface Content {
	tables: Readonly<Record<string, number>>;
	log: { seq: number; hash: string };
}

/** Compares rows and the end of the log with what a file says. @throws Stop naming what differs */
export function requireSame(kind: 'backup' | 'archive', said: Content, found: Content): void {
	const names = new Set([...Object.keys(found.tables), ...Object.keys(said.tables)]);
	const apart = [...names].filter((name) => found.tables[name] !== said.tables[name]);
	if (apart.length)
		throw new Stop(
			`Not as the ${kind} says: ${apart.map((name) => `${name} has ${found.tables[name] ?? 'no'} rows, not ${said.tables[name] ?? 'any'}`).join('; ')}.`
		);
	if (found.log.hash !== said.log.hash || found.log.seq !== said.log.seq)
		throw new Stop(
			`The log ends with entry ${found.log.seq}, not ${said.log.seq} as the ${kind} says.`
		);
}

/** Walks the log of what came out of a file, with every record that it tells of. @throws Stop where it does not prove */
export async function proveChain(
	kind: 'backup' | 'archive',
	url: string,
	signed?: AnchorsRead
): Promise<ChainCheck> {
	const { db, close } = openDatabase(url, { max: 1 });
	try {
		const check = await verifyChain(db, { signed });
		if (check.broken)
			throw new Stop(
				`The record in the ${kind} does not prove: ${check.broken.where}, ${check.broken.text}.`
			);
		return check;
	} finally {
		await close();
	}
}

/** Makes a database of a name and fills it; where that fails it is dropped again. */
export async function intoFresh<T>(
	url: string,
	name: string,
	fill: (freshUrl: string) => Promise<T>
): Promise<T> {
	const freshUrl = await makeDatabase(url, name);
	try {
		return await fill(freshUrl);
	} catch (error) {
		await dropDatabase(url, name);
		throw error;
	}
}

/**
 * Puts a database in the place of another, which is kept under a name of its own.
 * @returns the name under which the one before is kept
 */
export async function swapDatabases(url: string, fresh: string, stamp: string): Promise<string> {
	const name = new URL(url).pathname.slice(1);
	const kept = `${name}_before_${stamp}`;
	await connected(databaseAt(url, BESIDE), async (client) => {
		const rename = (from: string, to: string) =>
			client.query(
				`alter database ${pg.escapeIdentifier(from)} rename to ${pg.escapeIdentifier(to)}`
			);
		await client.query(
			'select pg_terminate_backend(pid) from pg_stat_activity where datname = any($1) and pid <> pg_backend_pid()',
			[[name, fresh]]
		);
		await rename(name, kept);
		try {
			await rename(fresh, name);
		} catch (error) {
			await rename(kept, name);
			throw error;
		}
	});
	return kept;
}
