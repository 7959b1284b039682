import { browser } from '$app/environment';
import { PERSON_HEADER } from '$lib/person-header';
import { asksProof } from '../shell/proof.svelte';
import { type Device, type News, thisDevice } from './device';
import {
	nextBatch,
	type Parcel,
	type Person,
	type Refusal,
	requestOf,
	type Said,
	saidTo,
	type Waiting
} from './parcel';
import { Retry } from './retry';

type Answer = (parcel: Parcel, result: unknown) => void;
type Link = 'live' | 'reconnecting' | 'offline' | 'signed out' | 'someone else' | 'unproven';

/** An answer that does not come within this time does not come; a file takes longer. */
const PATIENCE_MS = 20_000;
const FILE_PATIENCE_MS = 180_000;
/** So often a page that is looked at asks whether the server is still there, and its person still in. */
const LOOK_MS = 30_000;
/** So often a page with something unsent sees to it that the device still has it. */
const KEEP_MS = 5000;
/** Nothing comes of sending again before somebody has done something. */
const WAITS_FOR_PERSON: ReadonlySet<Link> = new Set(['signed out', 'someone else', 'unproven']);
/** Asked whether the server is there, and whose session it is. */
const HERE_URL = '/api/here';

/**
 * Sends changes in order and keeps each on the device until the server has taken it. A refused parcel is taken out
 * and said, on every page, until it is seen; a lost connection keeps it and tries again. The pages of a device send
 * one at a time and tell one another what became of it.
 */
export class Outbox {
	private all = $state.raw<Waiting[]>([]);
	refusals = $state.raw<Refusal[]>([]);
	link = $state<Link>('live');
	/** The device keeps nothing: what waits is lost with this page, and is sent all the same. */
	unkept = $state(false);
	private actor = $state<Person>({ id: '', name: '' });
	private order = 0;
	/** What waits here and is not known to be on the device. */
	// eslint-disable-next-line svelte/prefer-svelte-reactivity -- nothing is drawn from it
	private readonly loose = new Set<string>();
	/** What the server wants shown before it takes a signature. */
	private asked: { message: string } | undefined;
	private running: Promise<boolean> | undefined;
	private taken: Promise<void> = Promise.resolve();
	private readonly retry = new Retry();
	/** Its page tells it of the network and of being looked at. */
	private watching = false;
	/** It hears the other pages of this device. */
	private hearing = false;
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

	/** Takes up what an earlier page left, and keeps an eye on the link. */
	wake(actor: Person): Promise<void> {
		if (!browser) return this.taken;
		if (!this.watching) {
			this.watching = true;
			// Either may be wrong, as where the server runs on this very machine: it is asked.
			addEventListener('online', () => void this.goOn());
			addEventListener('offline', () => void this.goOn());
			document.addEventListener('visibilitychange', () => {
				if (document.visibilityState === 'visible') void this.goOn();
			});
			setInterval(() => {
				if (document.visibilityState === 'visible' && this.link === 'live') void this.flush();
			}, LOOK_MS);
			setInterval(() => {
				if (this.all.length) void this.lookForLost().then(() => this.keepLoose());
			}, KEEP_MS);
		}
		return (this.taken = this.takeUp(actor));
	}

	/** When what an earlier page left is here. */
	get awake(): Promise<void> {
		return this.taken;
	}

	/** Takes up what the device kept for a person. */
	async takeUp(actor: Person): Promise<void> {
		if (!this.hearing) this.device.hear((news) => this.hear(news));
		this.hearing = true;
		this.actor = actor;
		await this.onDevice(async () => {
			const { parcels, refusals } = await this.device.all();
			const fresh = this.all.filter((p) => !parcels.some((k) => k.id === p.id));
			this.all = [...parcels, ...fresh].sort((a, b) => a.at - b.at || a.order - b.order);
			this.refusals = refusals.filter((r) => r.actor === actor.id);
		});
		if (this.waiting.length) void this.flush();
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

	/** Another page of this device did something with what waits. */
	private hear(news: News): void {
		if (news.kind === 'put') this.add(news.parcel);
		else if (news.kind === 'taken') this.onAnswer(news.parcel, news.result);
		else if (news.kind === 'out') this.forget(news.ids);
		else if (news.kind === 'seen')
			this.refusals = this.refusals.filter((r) => !news.ids.includes(r.id));
		else if (news.refusal.actor === this.actor.id) this.addRefusal(news.refusal);
	}

	private add(parcel: Waiting): void {
		if (!this.all.some((p) => p.id === parcel.id)) this.all = [...this.all, parcel];
	}

	private addRefusal(refusal: Refusal): void {
		this.refusals = [...this.refusals.filter((r) => r.id !== refusal.id), refusal];
		this.onRefused(refusal);
	}

	private forget(ids: readonly string[]): void {
		this.all = this.all.filter((p) => !ids.includes(p.id));
		ids.forEach((id) => this.loose.delete(id));
	}

	put(parcel: Parcel): void {
		const { id, name } = this.actor;
		const waiting = { ...parcel, actor: id, by: name, at: Date.now(), order: this.order++ };
		this.add(waiting);
		this.loose.add(waiting.id);
		void this.keepLoose().then(() => {
			this.device.tell({ kind: 'put', parcel: waiting });
			return this.goOn();
		});
	}

	/** A browser may clear what it keeps while a page stands open: what waits there is kept anew. */
	private async lookForLost(): Promise<void> {
		await this.onDevice(async () => {
			const { parcels } = await this.device.all();
			for (const { id } of this.all) if (!parcels.some((p) => p.id === id)) this.loose.add(id);
		});
	}

	/** Puts on the device what is not there, as it could not be kept before. */
	private async keepLoose(): Promise<void> {
		const missing = this.all.filter((p) => this.loose.has(p.id));
		if (!missing.length) return;
		await this.onDevice(async () => {
			for (const parcel of missing) {
				await this.device.keep(parcel);
				this.loose.delete(parcel.id);
				// It was sent while it was kept.
				if (!this.all.some((p) => p.id === parcel.id)) await this.device.drop([parcel.id]);
			}
			this.unkept = false;
		});
	}

	/** Somebody has read why parcels were refused. */
	seen(ids: readonly string[]): void {
		this.refusals = this.refusals.filter((r) => !ids.includes(r.id));
		this.device.tell({ kind: 'seen', ids: [...ids] });
		void this.onDevice(() => this.device.dropRefusals(ids));
	}

	/** The person turned away before, and now wants to show that it is them. */
	async prove(): Promise<void> {
		if (this.asked && (await this.device.prove(this.asked))) await this.flush();
	}

	/** The person whose session ended signs in again, where they stand. */
	async enter(): Promise<void> {
		if (await this.device.enter(this.actor)) await this.goOn();
	}

	/** Tries at once, with short waits again after it. */
	private goOn(): Promise<boolean> {
		this.retry.anew();
		return this.flush();
	}

	/**
	 * Sends what waits, or looks whether the server is there where nothing does.
	 * @returns true when nothing is left; a call during a sending waits for that one
	 */
	flush(): Promise<boolean> {
		this.running ??= this.sendAll().finally(() => {
			this.running = undefined;
			// Given in the moment in which the sending ended.
			if (this.waiting.length && this.link === 'live') this.retry.later(() => void this.flush());
		});
		return this.running;
	}

	private async sendAll(): Promise<boolean> {
		if (!this.actor.id) return this.waiting.length === 0;
		if (this.link !== 'live') await this.lookForLost();
		await this.keepLoose();
		do {
			await this.device.alone(() => this.sendBatches());
		} while (this.waiting.length && (await this.personHelps()));
		if (this.link === 'live') this.retry.anew();
		else if (this.link !== 'unproven')
			this.retry.later(
				() => void (WAITS_FOR_PERSON.has(this.link) ? this.lookAgain() : this.flush())
			);
		return this.waiting.length === 0;
	}

	/** Whether the person did what was missing. */
	private async personHelps(): Promise<boolean> {
		if (this.link === 'unproven' && this.asked) return this.device.prove(this.asked);
		return this.link === 'signed out' && this.device.enter(this.actor);
	}

	/** Waits for the person; they may have signed in on another page of this device. */
	private async lookAgain(): Promise<void> {
		await this.look();
		if (this.link === 'live') await this.flush();
		else this.retry.later(() => void this.lookAgain());
	}

	private async sendBatches(): Promise<void> {
		if (!this.waiting.length) return this.look();
		while (this.waiting.length) if (!(await this.send(nextBatch(this.waiting)))) return;
	}

	/** Asks whether the server is there, and whose session it is. */
	private async look(): Promise<void> {
		const answered = await this.ask(HERE_URL, { headers: { [PERSON_HEADER]: this.actor.id } });
		if (answered) this.link = 'live';
	}

	/** @returns what the server said; undefined where it could not be reached, or takes nothing just now */
	private async ask(
		url: string,
		init: RequestInit,
		patience = PATIENCE_MS
	): Promise<{ status: number; body: unknown } | undefined> {
		let response: Response;
		let body: unknown;
		try {
			response = await this.device.fetch(url, { ...init, signal: AbortSignal.timeout(patience) });
			body = await response.json().catch(() => null);
		} catch {
			this.link = navigator.onLine ? 'reconnecting' : 'offline';
			return undefined;
		}
		const { status } = response;
		if (status === 401) {
			this.link = 'signed out';
			return undefined;
		}
		if ((body as { kind?: string } | null)?.kind === 'other person') {
			this.link = 'someone else';
			return undefined;
		}
		// A page that a network puts in between answers too; only the server says whose session it is.
		const ours = response.headers.get(PERSON_HEADER) === this.actor.id && body !== null;
		if (status >= 500 || status === 429 || !ours) {
			this.link = 'reconnecting';
			return undefined;
		}
		return { status, body };
	}

	private async send(batch: readonly Waiting[]): Promise<boolean> {
		const { url, init } = requestOf(batch, Date.now());
		const answered = await this.ask(url, init, batch[0]?.file && FILE_PATIENCE_MS);
		if (!answered) return false;
		const said = saidTo(batch, answered);
		if (!said?.length) {
			this.link = 'reconnecting';
			return false;
		}
		if (!(await this.settle(batch, said))) return false;
		this.link = 'live';
		return true;
	}

	/** Does what the server says to each parcel. @returns false where nothing more can be sent now */
	private async settle(batch: readonly Waiting[], said: readonly Said[]): Promise<boolean> {
		let taken: [Waiting, unknown][] = [];
		const takeIn = async () => {
			// Told before they are taken out, all at once: in between nothing is nowhere.
			for (const [parcel, result] of taken) {
				this.onAnswer(parcel, result);
				this.device.tell({ kind: 'taken', parcel: withoutFile(parcel), result });
			}
			await this.takeOut(taken.map(([parcel]) => parcel));
			taken = [];
		};
		for (const { id, status, body } of said) {
			const parcel = batch.find((p) => p.id === id);
			if (!parcel) continue;
			if (status < 300) {
				taken.push([parcel, body]);
				continue;
			}
			await takeIn();
			if (asksProof(body)) {
				// A signature waits here until its person has shown that it is theirs.
				this.link = 'unproven';
				this.asked = body;
				return false;
			}
			await this.refuse(
				parcel,
				(body as { message?: string }).message ??
					(status === 413 ? 'The file is too large.' : 'The server refused this.')
			);
		}
		await takeIn();
		return true;
	}

	private async takeOut(parcels: readonly Waiting[]): Promise<void> {
		if (!parcels.length) return;
		const ids = parcels.map((p) => p.id);
		this.forget(ids);
		this.device.tell({ kind: 'out', ids });
		await this.onDevice(() => this.device.drop(ids));
	}

	/** Kept with why before it is taken out; a signature does not go out over an answer that was refused. */
	private async refuse(parcel: Waiting, message: string): Promise<void> {
		const last = this.waiting.filter(
			(p) => p.about === parcel.about && p.last && p.id !== parcel.id
		);
		const refusal: Refusal = {
			id: parcel.id,
			about: parcel.about,
			name: parcel.name,
			actor: parcel.actor,
			parcel,
			message: last.length
				? `${message} Your signature was not sent: look again, then sign.`
				: message
		};
		await this.onDevice(() => this.device.keepRefusal(refusal));
		await this.takeOut([parcel, ...last]);
		this.device.tell({ kind: 'refused', refusal });
		this.addRefusal(refusal);
	}
}

function withoutFile(parcel: Waiting): Waiting {
	const { file: _, ...plain } = parcel;
	return plain;
}

export const outbox = new Outbox();
