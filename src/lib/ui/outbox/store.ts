import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Parcel, Refusal } from './parcel';

interface Schema extends DBSchema {
	/** What waits to be sent, in order. */
	parcels: { key: string; value: Parcel };
	/** What the server did not take, until somebody has seen it. */
	refusals: { key: string; value: Refusal };
	/** What a page knew last, so that it opens with it when the server is away. */
	known: { key: string; value: unknown };
}

let opened: Promise<IDBPDatabase<Schema>> | undefined;
const forgetOpened = () => (opened = undefined);

/** The database of this device; what could not be opened, or was closed by the browser, is opened anew. */
export const store = (): Promise<IDBPDatabase<Schema>> => (opened ??= open());

async function open(): Promise<IDBPDatabase<Schema>> {
	try {
		const db = await openDB<Schema>('grevan', 1, {
			upgrade(fresh) {
				fresh.createObjectStore('parcels', { keyPath: 'id' });
				fresh.createObjectStore('refusals', { keyPath: 'id' });
				fresh.createObjectStore('known');
			},
			terminated: forgetOpened
		});
		// Somebody clears what the browser keeps: it is let go, and begun anew.
		db.addEventListener('versionchange', () => {
			db.close();
			forgetOpened();
		});
		return db;
	} catch (refused) {
		forgetOpened();
		throw refused;
	}
}

/** Keeps what a page of a person knows; a device that keeps nothing keeps this neither, and the page goes on. */
export const remember = async (person: string, key: string, value: unknown): Promise<void> => {
	await store()
		.then((db) => db.put('known', value, `${person}:${key}`))
		.catch(() => undefined);
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
