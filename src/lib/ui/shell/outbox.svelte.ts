import { browser } from '$app/environment';
import { PERSON_HEADER } from '$lib/person-header';
import { asksProof, proof } from './proof.svelte';
import { store } from './store';

/** One request that must arrive once: its body carries an id made here. */
export interface Parcel {
	id: string;
	url: string;
	body: Record<string, unknown>;
	/** Sent beside the body, as a form. */
	file?: Blob;
	/** Groups the parcels of one page. */
	about: string;
	/** What is said of it when it is refused, such as the tag of the item. */
	name: string;
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

export interface Refusal {
	id: string;
	about: string;
	name: string;
	message: string;
	actor: string;
}
type Answer = (parcel: Parcel, result: unknown) => void;

/** What the outbox needs of the device: what it keeps, and the way to the server. */
export interface Device {
	all(): Promise<{ parcels: Waiting[]; refusals: Refusal[] }>;
	keep(parcel: Waiting): Promise<void>;
	drop(ids: readonly string[]): Promise<void>;
	keepRefusal(refusal: Refusal): Promise<void>;
	dropRefusal(id: string): Promise<void>;
	fetch: typeof fetch;
	/** Asks the person to show that it is them. @returns whether they did */
	prove(asked: { message: string }): Promise<boolean>;
}

/** The database of this device and the network. */
const thisDevice: Device = {
	async all() {
		const db = await store();
		return {
			parcels: (await db.getAll('parcels')) as Waiting[],
			refusals: await db.getAll('refusals')
		};
	},
	keep: async (parcel) => void (await (await store()).put('parcels', parcel)),
	drop: async (ids) => {
		const db = await store();
		await Promise.all(ids.map((id) => db.delete('parcels', id)));
	},
	keepRefusal: async (refusal) => void (await (await store()).put('refusals', refusal)),
	dropRefusal: async (id) => (await store()).delete('refusals', id),
	fetch: (...asked) => fetch(...asked),
	prove: (asked) => proof.ask(asked)
};

const RETRY_MS = 2000;
/** Nothing comes of sending again before somebody has done something. */
const WAITS_FOR_PERSON: ReadonlySet<string> = new Set(['signed out', 'someone else', 'unproven']);

/**
 * Sends changes in order and keeps each on the device until the server has taken it. A refused parcel is taken
 * out and said, on every page, until it is seen; a lost connection keeps it and tries again.
 */
export class Outbox {
	private all = $state.raw<Waiting[]>([]);
	refusals = $state.raw<Refusal[]>([]);
	link = $state<'live' | 'reconnecting' | 'offline' | 'signed out' | 'someone else' | 'unproven'>(
		'live'
	);
	/** The device keeps nothing: what waits is lost with this page, and is sent all the same. */
	unkept = $state(false);
	private actor = $state<Person>({ id: '', name: '' });
	private order = 0;
	/** What the server wants shown before it takes a signature. */
	private asked: { message: string } | undefined;
	private running: Promise<boolean> | undefined;
	private taken: Promise<void> = Promise.resolve();
	private onAnswer: Answer = () => {};
	private onRefused: (refusal: Refusal) => void = () => {};
	private readonly device: Device;

	constructor(device: Device = thisDevice) {
		this.device = device;
	}

	/** What waits of the person who is signed in. */
	get waiting(): readonly Waiting[] {
		return this.all.filter((p) => p.actor === this.actor.id);
	}

	/** Of which other people something waits on this device, and how much. */
	get ofOthers(): { name: string; count: number }[] {
		// eslint-disable-next-line svelte/prefer-svelte-reactivity -- made anew, never changed
		const found = new Map<string, { name: string; count: number }>();
		// What an earlier version of the app kept carries no name.
		for (const { actor, by = 'someone else' } of this.all)
			if (actor !== this.actor.id)
				found.set(actor, { name: by, count: (found.get(actor)?.count ?? 0) + 1 });
		return [...found.values()];
	}

	/** Takes up what an earlier page left. */
	wake(actor: Person): Promise<void> {
		if (!browser) return this.taken;
		addEventListener('online', () => void this.flush());
		addEventListener('offline', () => (this.link = 'offline'));
		return (this.taken = this.takeUp(actor));
	}

	/** When what an earlier page left is here. */
	get awake(): Promise<void> {
		return this.taken;
	}

	/** Takes up what the device kept for a person. */
	async takeUp(actor: Person): Promise<void> {
		this.actor = actor;
		await this.onDevice(async () => {
			const { parcels, refusals } = await this.device.all();
			const fresh = this.all.filter((p) => !parcels.some((k) => k.id === p.id));
			this.all = [...parcels.sort((a, b) => a.at - b.at || a.order - b.order), ...fresh];
			this.refusals = refusals.filter((r) => r.actor === actor.id);
		});
		void this.flush();
	}

	/** Does something with the storage of the device; where that is refused, goes on without. */
	private async onDevice(work: () => Promise<void>): Promise<void> {
		try {
			await work();
		} catch {
			this.unkept = true;
		}
	}

	/** The page that hears what becomes of its parcels. */
	listen(onAnswer: Answer, onRefused: (refusal: Refusal) => void): () => void {
		this.onAnswer = onAnswer;
		this.onRefused = onRefused;
		return () => {
			this.onAnswer = () => {};
			this.onRefused = () => {};
		};
	}

	put(parcel: Parcel): void {
		const { id, name } = this.actor;
		const waiting = { ...parcel, actor: id, by: name, at: Date.now(), order: this.order++ };
		this.all = [...this.all, waiting];
		void this.onDevice(() => this.device.keep(waiting)).then(() => this.flush());
	}

	/** Somebody has read why a parcel was refused. */
	seen(id: string): void {
		this.refusals = this.refusals.filter((r) => r.id !== id);
		void this.onDevice(() => this.device.dropRefusal(id));
	}

	/** The person turned away before, and now wants to show that it is them. */
	async prove(): Promise<void> {
		if (this.asked && (await this.device.prove(this.asked))) await this.flush();
	}

	/** Sends what waits; true when nothing is left. A call during a sending waits for that one. */
	flush(): Promise<boolean> {
		this.running ??= this.sendAll().finally(() => (this.running = undefined));
		return this.running;
	}

	private async sendAll(): Promise<boolean> {
		for (let parcel = this.waiting[0]; parcel; parcel = this.waiting[0])
			if (!(await this.send(parcel))) break;
		if (this.waiting.length && !WAITS_FOR_PERSON.has(this.link))
			setTimeout(() => void this.flush(), RETRY_MS);
		return this.waiting.length === 0;
	}

	private async send(parcel: Waiting): Promise<boolean> {
		let response: Response;
		try {
			response = await this.device.fetch(parcel.url, requestOf(parcel));
		} catch {
			this.link = navigator.onLine ? 'reconnecting' : 'offline';
			return false;
		}
		if (response.status === 401) {
			this.link = 'signed out';
			return false;
		}
		const result: unknown = await response.json().catch(() => null);
		if ((result as { kind?: string } | null)?.kind === 'other person') {
			this.link = 'someone else';
			return false;
		}
		// A page that a network puts in between answers too; only the server says whose session it is.
		const ours = response.headers.get(PERSON_HEADER) === parcel.actor && result !== null;
		if (response.status >= 500 || !ours) {
			this.link = 'reconnecting';
			return false;
		}
		if (asksProof(result)) {
			this.link = 'unproven';
			this.asked = result;
			// A signature waits here until its person has shown that it is theirs.
			return this.device.prove(result);
		}
		this.link = 'live';
		// Told before it is taken out: in between it is never nowhere.
		if (response.ok) this.onAnswer(parcel, result);
		await this.takeOut([parcel]);
		if (!response.ok)
			await this.refuse(
				parcel,
				(result as { message?: string } | null)?.message ??
					(response.status === 413 ? 'The file is too large.' : 'The server refused this.')
			);
		return true;
	}

	private async takeOut(parcels: readonly Waiting[]): Promise<void> {
		const ids = parcels.map((p) => p.id);
		this.all = this.all.filter((p) => !ids.includes(p.id));
		await this.onDevice(() => this.device.drop(ids));
	}

	/** A signature does not go out over an answer that was refused. */
	private async refuse(parcel: Waiting, message: string): Promise<void> {
		const last = this.waiting.filter((p) => p.about === parcel.about && p.last);
		await this.takeOut(last);
		const refusal: Refusal = {
			id: parcel.id,
			about: parcel.about,
			name: parcel.name,
			actor: parcel.actor,
			message: last.length
				? `${message} Your signature was not sent: look again, then sign.`
				: message
		};
		this.refusals = [...this.refusals, refusal];
		await this.onDevice(() => this.device.keepRefusal(refusal));
		this.onRefused(refusal);
	}
}

/** The request of a parcel; what waited says how long, in time that passed on this device. */
function requestOf(parcel: Waiting): RequestInit {
	const body = { ...parcel.body, heldMs: Math.max(0, Date.now() - parcel.at) };
	const method = 'POST';
	const headers = { [PERSON_HEADER]: parcel.actor };
	if (!parcel.file)
		return {
			method,
			headers: { ...headers, 'content-type': 'application/json' },
			body: JSON.stringify(body)
		};
	const form = new FormData();
	for (const [name, value] of Object.entries(body)) form.set(name, String(value));
	form.set('file', parcel.file);
	return { method, headers, body: form };
}

export const outbox = new Outbox();
