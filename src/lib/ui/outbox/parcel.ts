import { PERSON_HEADER } from '$lib/person-header';

/** One request that must arrive once: its body carries an id made here. */
export interface Parcel {
	id: string;
	url: string;
	body: Record<string, unknown>;
	/** Sent beside the body, as a form. */
	file?: Blob;
	/** Groups the parcels of one page. */
	about: string;
	/** What it belongs to, such as the tag of the item. */
	name: string;
	/** What it holds, as a person reads it; what an earlier version of the app kept has none. */
	says?: string;
	/** Goes only when everything about the same before it was taken. */
	last?: boolean;
}

/** Who is signed in on the page. */
export interface Person {
	id: string;
	name: string;
}

/** A parcel as it waits. */
export interface Waiting extends Parcel {
	/** Whose it is: it never goes out under another name. */
	actor: string;
	/** Their name, to be said to whoever is here meanwhile. */
	by?: string;
	/** When it was given, on the clock of this device. */
	at: number;
	order: number;
}

/** What the server did not take, until somebody has seen it. */
export interface Refusal {
	id: string;
	about: string;
	name: string;
	message: string;
	actor: string;
	/** What was not taken, whole; what an earlier version of the app kept has none. */
	parcel?: Waiting;
}

/** What the server says to one parcel. */
export interface Said {
	id: string;
	status: number;
	body: unknown;
}

/** Where parcels without a file go together. */
const BATCH_URL = '/api/outbox';
/** How many go at once. */
const BATCH_MOST = 40;

/** The next to be sent, in order: one with a file alone, others together. */
export function nextBatch(waiting: readonly Waiting[]): Waiting[] {
	const withFile = waiting.findIndex((parcel) => parcel.file);
	if (withFile === 0) return waiting.slice(0, 1);
	return waiting.slice(0, withFile < 0 ? BATCH_MOST : Math.min(withFile, BATCH_MOST));
}

/** The request of a batch; what waited says how long, in time that passed on this device. */
export function requestOf(
	batch: readonly Waiting[],
	now: number
): { url: string; init: RequestInit } {
	const [first] = batch;
	const headers = { [PERSON_HEADER]: first?.actor ?? '' };
	const held = (parcel: Waiting) => ({ ...parcel.body, heldMs: Math.max(0, now - parcel.at) });
	if (!first?.file) {
		const parcels = batch.map((parcel) => ({
			id: parcel.id,
			url: parcel.url,
			body: held(parcel)
		}));
		return {
			url: BATCH_URL,
			init: {
				method: 'POST',
				headers: { ...headers, 'content-type': 'application/json' },
				body: JSON.stringify({ parcels })
			}
		};
	}
	const form = new FormData();
	for (const [name, value] of Object.entries(held(first))) form.set(name, String(value));
	form.set('file', first.file);
	return { url: first.url, init: { method: 'POST', headers, body: form } };
}

/** What an answer of the server says to each parcel of a batch; undefined where it is not of the form. */
export function saidTo(
	batch: readonly Waiting[],
	answered: { status: number; body: unknown }
): Said[] | undefined {
	const [first] = batch;
	const { status, body } = answered;
	if (typeof body !== 'object' || body === null) return undefined;
	if (first?.file) return [{ id: first.id, status, body }];
	const results = (body as { results?: unknown }).results;
	if (status !== 200 || !Array.isArray(results) || results.length > batch.length) return undefined;
	const said = results as Partial<Said>[];
	const fits = said.every(
		(one, i) => one.id === batch[i]?.id && typeof one.status === 'number' && 'body' in one
	);
	return fits ? (said as Said[]) : undefined;
}
