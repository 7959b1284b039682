import { proof } from '../shell/proof.svelte';
import type { Person, Refusal, Waiting } from './parcel';
import { store } from './store';

/** What one page of this device tells the others of what waits. */
export type News =
	| { kind: 'put'; parcel: Waiting }
	| { kind: 'taken'; parcel: Waiting; result: unknown }
	| { kind: 'out'; ids: string[] }
	| { kind: 'refused'; refusal: Refusal }
	| { kind: 'seen'; ids: string[] };

/** What the outbox needs of the device: what it keeps, the way to the server, the other pages, the person. */
export interface Device {
	all(): Promise<{ parcels: Waiting[]; refusals: Refusal[] }>;
	keep(parcel: Waiting): Promise<void>;
	drop(ids: readonly string[]): Promise<void>;
	keepRefusal(refusal: Refusal): Promise<void>;
	dropRefusals(ids: readonly string[]): Promise<void>;
	fetch: typeof fetch;
	/** Does something while no other page of this device does it. */
	alone<T>(work: () => Promise<T>): Promise<T>;
	tell(news: News): void;
	hear(heard: (news: News) => void): void;
	/** Asks the person to show that it is them. @returns whether they did */
	prove(asked: { message: string }): Promise<boolean>;
	/** Asks a person to sign in again, where they stand. @returns whether they did */
	enter(person: Person): Promise<boolean>;
}

/** Storage that does not answer within this time counts as refused. */
const STORAGE_MS = 4000;

/** @throws what the storage threw, or that it did not answer */
async function stored<T>(work: (db: Awaited<ReturnType<typeof store>>) => Promise<T>): Promise<T> {
	let timer: ReturnType<typeof setTimeout> | undefined;
	const late = new Promise<never>((_, reject) => {
		timer = setTimeout(() => reject(new Error('The storage does not answer.')), STORAGE_MS);
	});
	try {
		return await Promise.race([store().then(work), late]);
	} finally {
		clearTimeout(timer);
	}
}

const CHANNEL = 'grevan-outbox';
let opened: BroadcastChannel | undefined;
/** Pages of this device hear one another where the browser lets them. */
const channel = (): BroadcastChannel | undefined =>
	(opened ??= typeof BroadcastChannel === 'undefined' ? undefined : new BroadcastChannel(CHANNEL));

let asked = false;
/** Asks once that the browser does not clear what waits when it wants room. */
function askToStay(): void {
	if (asked) return;
	asked = true;
	void navigator.storage?.persist?.().catch(() => false);
}

/** The database of this device, the network, the other pages. */
export const thisDevice: Device = {
	all: () =>
		stored(async (db) => ({
			parcels: (await db.getAll('parcels')) as Waiting[],
			refusals: await db.getAll('refusals')
		})),
	async keep(parcel) {
		askToStay();
		await stored((db) => db.put('parcels', parcel));
	},
	drop: (ids) =>
		stored(async (db) => void (await Promise.all(ids.map((id) => db.delete('parcels', id))))),
	keepRefusal: async (refusal) => void (await stored((db) => db.put('refusals', refusal))),
	dropRefusals: (ids) =>
		stored(async (db) => void (await Promise.all(ids.map((id) => db.delete('refusals', id))))),
	fetch: (...request) => fetch(...request),
	alone: async (work) =>
		navigator.locks ? await navigator.locks.request(CHANNEL, work) : await work(),
	tell: (news) => channel()?.postMessage(news),
	hear: (heard) =>
		channel()?.addEventListener('message', ({ data }: MessageEvent<News>) => heard(data)),
	prove: (question) => proof.ask(question),
	enter: (person) => proof.askIn(person)
};
