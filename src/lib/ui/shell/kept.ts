import { forget, store } from './store';

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

/** The cache of the service worker that holds run pages, each under the person who opened it. */
const RUNS = 'runs';
const isOf = (person: string) => (request: Request) =>
	new URL(request.url).searchParams.get('of') === person;

const pagesOf = async (person: string): Promise<Request[]> =>
	'caches' in globalThis ? [...(await (await caches.open(RUNS)).keys())].filter(isOf(person)) : [];

export async function keptHere(person: string): Promise<Kept> {
	const db = await store();
	const [parcels, refusals, known, pages] = await Promise.all([
		db.getAll('parcels') as Promise<{ actor?: string }[]>,
		db.getAll('refusals'),
		db.getAllKeys('known'),
		pagesOf(person)
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
	const pages = await pagesOf(person);
	if (pages.length) {
		const cache = await caches.open(RUNS);
		await Promise.all(pages.map((page) => cache.delete(page)));
	}
}
