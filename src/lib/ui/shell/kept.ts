import { RUN_PAGES, runPagesOf } from '$lib/run-pages';
import { forget, store } from '../outbox/store';

/** How much this browser keeps of a person. */
export interface Kept {
	waiting: number;
	refused: number;
	/** Answers and holds of inspections that they worked at. */
	known: number;
	/** Pages of inspections, each with its data. */
	pages: number;
	/** Of anybody else that waits to be sent. */
	ofOthers: number;
}

const runPages = (): Promise<Cache | null> =>
	'caches' in globalThis ? caches.open(RUN_PAGES) : Promise.resolve(null);

export async function keptHere(person: string): Promise<Kept> {
	const db = await store();
	const [parcels, refusals, known, pages] = await Promise.all([
		db.getAll('parcels') as Promise<{ actor?: string }[]>,
		db.getAll('refusals'),
		db.getAllKeys('known'),
		runPages().then((cache) => (cache ? runPagesOf(cache, person) : []))
	]);
	return {
		waiting: parcels.filter(({ actor }) => actor === person).length,
		refused: refusals.filter(({ actor }) => actor === person).length,
		known: known.filter((key) => key.startsWith(`${person}:`)).length,
		pages: pages.length,
		ofOthers: parcels.filter(({ actor }) => actor !== person).length
	};
}

/** Takes away what this browser keeps of a person, but for what nobody else has: what waits to be sent. */
export async function wipe(person: string): Promise<void> {
	const db = await store();
	const refusals = (await db.getAll('refusals')).filter(({ actor }) => actor === person);
	await Promise.all(refusals.map(({ id }) => db.delete('refusals', id)));
	await forget(person);
	const cache = await runPages();
	for (const page of cache ? await runPagesOf(cache, person) : []) await cache?.delete(page);
}
