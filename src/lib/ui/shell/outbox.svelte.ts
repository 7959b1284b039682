import { browser } from '$app/environment';
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

/** A parcel as it waits. */
interface Waiting extends Parcel {
	/** Whose it is: it never goes out under another name. */
	actor: string;
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

const RETRY_MS = 2000;

/**
 * Sends changes in order and keeps each on the device until the server has taken it. A refused parcel is taken
 * out and said, on every page, until it is seen; a lost connection keeps it and tries again.
 */
class Outbox {
	private all = $state.raw<Waiting[]>([]);
	refusals = $state.raw<Refusal[]>([]);
	link = $state<'live' | 'reconnecting' | 'offline' | 'signed out'>('live');
	private actor = $state('');
	private order = 0;
	private running: Promise<boolean> | undefined;
	private taken: Promise<void> = Promise.resolve();
	private onAnswer: Answer = () => {};
	private onRefused: (refusal: Refusal) => void = () => {};

	/** What waits of the person who is signed in. */
	get waiting(): readonly Waiting[] {
		return this.all.filter((p) => p.actor === this.actor);
	}

	/** How much waits of other people on this device. */
	get ofOthers(): number {
		return this.all.length - this.waiting.length;
	}

	/** Takes up what an earlier page left. */
	wake(actor: string): Promise<void> {
		if (!browser) return this.taken;
		return (this.taken = this.takeUp(actor));
	}

	/** When what an earlier page left is here. */
	get awake(): Promise<void> {
		return this.taken;
	}

	private async takeUp(actor: string): Promise<void> {
		this.actor = actor;
		addEventListener('online', () => void this.flush());
		addEventListener('offline', () => (this.link = 'offline'));
		const db = await store();
		const kept = (await db.getAll('parcels')) as Waiting[];
		const fresh = this.all.filter((p) => !kept.some((k) => k.id === p.id));
		this.all = [...kept.sort((a, b) => a.at - b.at || a.order - b.order), ...fresh];
		this.refusals = (await db.getAll('refusals')).filter((r) => r.actor === actor);
		void this.flush();
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
		const waiting = { ...parcel, actor: this.actor, at: Date.now(), order: this.order++ };
		this.all = [...this.all, waiting];
		void store()
			.then((db) => db.put('parcels', waiting))
			.then(() => this.flush());
	}

	/** Somebody has read why a parcel was refused. */
	seen(id: string): void {
		this.refusals = this.refusals.filter((r) => r.id !== id);
		void store().then((db) => db.delete('refusals', id));
	}

	/** Sends what waits; true when nothing is left. A call during a sending waits for that one. */
	flush(): Promise<boolean> {
		this.running ??= this.sendAll().finally(() => (this.running = undefined));
		return this.running;
	}

	private async sendAll(): Promise<boolean> {
		for (let parcel = this.waiting[0]; parcel; parcel = this.waiting[0])
			if (!(await this.send(parcel))) break;
		if (this.waiting.length && this.link !== 'signed out')
			setTimeout(() => void this.flush(), RETRY_MS);
		return this.waiting.length === 0;
	}

	private async send(parcel: Waiting): Promise<boolean> {
		let response: Response;
		try {
			response = await fetch(parcel.url, { method: 'POST', ...contentOf(parcel) });
		} catch {
			this.link = navigator.onLine ? 'reconnecting' : 'offline';
			return false;
		}
		if (response.status === 401) {
			this.link = 'signed out';
			return false;
		}
		if (response.status >= 500) {
			this.link = 'reconnecting';
			return false;
		}
		const result: unknown = await response.json().catch(() => null);
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
		const ids = new Set(parcels.map((p) => p.id));
		this.all = this.all.filter((p) => !ids.has(p.id));
		const db = await store();
		await Promise.all([...ids].map((id) => db.delete('parcels', id)));
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
		await (await store()).put('refusals', refusal);
		this.onRefused(refusal);
	}
}

/** The request of a parcel; what waited says how long, in time that passed on this device. */
function contentOf(parcel: Waiting): RequestInit {
	const body = { ...parcel.body, heldMs: Math.max(0, Date.now() - parcel.at) };
	if (!parcel.file)
		return { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
	const form = new FormData();
	for (const [name, value] of Object.entries(body)) form.set(name, String(value));
	form.set('file', parcel.file);
	return { body: form };
}

export const outbox = new Outbox();
