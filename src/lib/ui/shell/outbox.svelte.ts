import { browser } from '$app/environment';

/** One request that must arrive once: its body carries an id made here. */
export interface Parcel {
	id: string;
	url: string;
	body: Record<string, unknown>;
	/** Groups the parcels of one page. */
	about: string;
}

export type Refusal = { parcel: Parcel; message: string };
type Answer = (parcel: Parcel, result: unknown) => void;

const KEY = 'grevan.outbox';
const RETRY_MS = 2000;

/**
 * Sends changes in order and keeps each on the device until the server has taken it. A refused parcel is taken
 * out and said; a lost connection keeps it and tries again.
 */
class Outbox {
	waiting = $state<Parcel[]>([]);
	link = $state<'live' | 'reconnecting' | 'offline' | 'signed out'>('live');
	private running: Promise<boolean> | undefined;
	private onAnswer: Answer = () => {};
	private onRefused: (refusal: Refusal) => void = () => {};

	/** Takes up what an earlier page left. */
	wake(): void {
		if (!browser) return;
		this.waiting = read();
		addEventListener('online', () => void this.flush());
		addEventListener('offline', () => (this.link = 'offline'));
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
		this.waiting = [...this.waiting, parcel];
		write(this.waiting);
		void this.flush();
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

	private async send(parcel: Parcel): Promise<boolean> {
		let response: Response;
		try {
			response = await fetch(parcel.url, {
				method: 'POST',
				headers: { 'content-type': 'application/json' },
				body: JSON.stringify(parcel.body)
			});
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
		this.waiting = this.waiting.filter((p) => p.id !== parcel.id);
		write(this.waiting);
		if (response.ok) this.onAnswer(parcel, result);
		else
			this.onRefused({
				parcel,
				message: (result as { message?: string } | null)?.message ?? 'The server refused this.'
			});
		return true;
	}
}

function read(): Parcel[] {
	try {
		return JSON.parse(localStorage.getItem(KEY) ?? '[]') as Parcel[];
	} catch {
		return [];
	}
}

function write(parcels: Parcel[]): void {
	localStorage.setItem(KEY, JSON.stringify(parcels));
}

export const outbox = new Outbox();
