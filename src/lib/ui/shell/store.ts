import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Parcel, Refusal } from './outbox.svelte';

interface Schema extends DBSchema {
	/** What waits to be sent, in order. */
	parcels: { key: string; value: Parcel };
	/** What the server did not take, until somebody has seen it. */
	refusals: { key: string; value: Refusal };
	/** What a page knew last, so that it opens with it when the server is away. */
	known: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;

/** The database of this device. */
export const store = () =>
	(opened ??= openDB<Schema>('grevan', 1, {
		upgrade(db) {
			db.createObjectStore('parcels', { keyPath: 'id' });
			db.createObjectStore('refusals', { keyPath: 'id' });
			db.createObjectStore('known');
		}
	}));

/** Keeps what a page of a person knows. */
export const remember = async (person: string, key: string, value: unknown): Promise<void> => {
	await (await store()).put('known', value, `${person}:${key}`);
};

/** Forgets what pages of a person knew; what waits to be sent stays. */
export const forget = async (person: string): Promise<void> => {
	const db = await store();
	const keys = await db.getAllKeys('known');
	await Promise.all(
		keys.filter((key) => key.startsWith(`${person}:`)).map((key) => db.delete('known', key))
	);
};

/** What a page of a person knew last. */
export const recall = async <T>(person: string, key: string): Promise<T | undefined> =>
	(await store()).get('known', `${person}:${key}`) as Promise<T | undefined>;
