import { freshId } from '$lib/fresh-id';
import type { Contradiction } from '$core/custody/questions';
import { NOTICED, type Fault, type Noticed } from '$core/custody/noticed';
import type { Returned } from '$core/custody/answers';
import type { Scanned } from '$core/handout/answers';
import type { SendJson } from '../form/send-json';
import type { Parcel } from '../outbox/parcel';
import { codeOf } from './codes';

/** What lies on the counter and is put down with the next scan or Enter. */
export interface Pending {
	/** Made here: sent again it is the same return. */
	id: string;
	tag: string;
	minutes: number | null;
	bar: number | null;
	unused: boolean;
	noticed: Noticed[];
	damage: Fault | null;
	note: string;
	/** What it is, once the server said so. */
	about: Item | null;
}

/** What came back last. */
export interface Back {
	id: string;
	tag: string;
	/** null: it waits on this device for the connection. */
	said: Extract<Returned, { done: true }> | null;
}

export interface ReturnWorld {
	send: SendJson;
	put: (parcel: Parcel) => void;
}

type Item = Extract<Scanned, { kind: 'item' }>;

const MINUTES = /^(\d{1,4})\s*M(IN)?$/i;
const BAR = /^(\d{1,3})\s*B(AR)?$/i;
const NUMBER = /^[1-6]$/;

/**
 * The return counter: tag after tag. Each is put down by the scan of the next, or by Enter; until then minutes, pressure
 * and what was noticed may be said. What contradicts the record is set aside with its question, and the row goes on.
 */
export class ReturnDesk {
	pending = $state<Pending | null>(null);
	back = $state.raw<Back[]>([]);
	/** Set aside until somebody says how it is. */
	asked = $state.raw<{ pending: Pending; questions: Contradiction[] }[]>([]);
	refused = $state.raw<{ tag: string; why: string }[]>([]);
	waiting = $state(0);
	private last: Promise<void> = Promise.resolve();
	private readonly world: ReturnWorld;
	private readonly changed: () => unknown;

	constructor(world: ReturnWorld, changed: () => unknown = () => {}) {
		this.world = world;
		this.changed = changed;
	}

	/** Takes a scan: a tag, a word of the card, figures such as 25m or 90b, or an empty line as Enter. */
	scan(word: string): Promise<void> {
		const text = word.trim();
		const { pending } = this;
		const code = codeOf(text);
		if (pending) {
			const minutes = MINUTES.exec(text)?.[1];
			const bar = BAR.exec(text)?.[1];
			const noticed = NUMBER.test(text) ? NOTICED[Number(text) - 1] : asNoticed(code);
			if (minutes) return this.say({ minutes: Number(minutes) });
			if (bar) return this.say({ bar: Number(bar) });
			if (noticed) return this.notice(noticed);
			if (code === 'unused') return this.say({ unused: !pending.unused });
			if (code === 'clear') {
				this.pending = null;
				return this.last;
			}
		}
		const down = pending ? this.putDown() : this.last;
		if (text === '' || code !== undefined) return down;
		const next = fresh(text.toUpperCase().replaceAll(/\s+/g, '-'));
		this.pending = next;
		void this.lookUp(next);
		return down;
	}

	/** Says what it is that lies there; of no weight for its return. */
	private async lookUp({ id, tag }: Pending): Promise<void> {
		const found = await this.world.send<Scanned>('POST', '/api/counter/scan', { word: tag });
		if (found.kind !== 'taken' || found.value.kind !== 'item' || this.pending?.id !== id) return;
		this.pending = { ...this.pending, about: found.value };
	}

	/** Says more about what lies on the counter. */
	say(part: Partial<Pending>): Promise<void> {
		if (this.pending) this.pending = { ...this.pending, ...part };
		return this.last;
	}

	/** Notices something, or takes it back. */
	notice(one: Noticed): Promise<void> {
		const { pending } = this;
		if (!pending) return this.last;
		const had = pending.noticed.includes(one);
		return this.say({
			unused: false,
			noticed: had ? pending.noticed.filter((x) => x !== one) : [...pending.noticed, one],
			damage: had && one === 'damage' ? null : pending.damage
		});
	}

	/** Puts down what lies on the counter. */
	putDown(): Promise<void> {
		const { pending } = this;
		if (!pending) return this.last;
		this.pending = null;
		return this.queued(pending);
	}

	/** Says how it is, of what was set aside. */
	answer(id: string, because: string): Promise<void> {
		const one = this.asked.find(({ pending }) => pending.id === id);
		if (!one) return this.last;
		this.asked = this.asked.filter((other) => other !== one);
		// Another answer is another request.
		return this.queued({ ...one.pending, id: freshId() }, because);
	}

	/** Leaves out what was set aside or refused. */
	seen(tag: string): void {
		this.refused = this.refused.filter((one) => one.tag !== tag);
		this.asked = this.asked.filter(({ pending }) => pending.tag !== tag);
	}

	private queued(pending: Pending, because?: string): Promise<void> {
		this.waiting++;
		this.last = this.last
			.then(() => this.bring(pending, because))
			.catch(() => this.refuse(pending.tag, 'This went wrong. Scan it again.'))
			.finally(() => this.waiting--);
		return this.last;
	}

	private async bring(pending: Pending, because?: string): Promise<void> {
		const { id, tag, minutes, bar, unused, noticed, damage, note } = pending;
		const body = {
			id,
			tag,
			...(minutes === null ? {} : { minutes }),
			...(bar === null ? {} : { bar }),
			...(unused ? { unused } : {}),
			...(noticed.length ? { noticed } : {}),
			...(damage ? { damage } : {}),
			...(note.trim() ? { note: note.trim() } : {}),
			...(because ? { because } : {})
		};
		const answered = await this.world.send<Returned>('POST', '/api/counter/return', body);
		if (answered.kind === 'refused') return this.refuse(tag, answered.message);
		if (answered.kind === 'taken' && !answered.value.done) {
			this.asked = [{ pending, questions: answered.value.asked }, ...this.asked];
			return;
		}
		if (answered.kind === 'away')
			this.world.put({
				id,
				url: '/api/counter/return',
				about: 'counter',
				name: tag,
				says: `Back: ${tag}`,
				body: { ...body, offline: true }
			});
		const said = answered.kind === 'taken' && answered.value.done ? answered.value : null;
		this.back = [{ id, tag, said }, ...this.back].slice(0, 60);
		// What waits on the device changed nothing that the server could show.
		if (said) this.changed();
	}

	private refuse(tag: string, why: string): void {
		this.refused = [{ tag, why }, ...this.refused.filter((one) => one.tag !== tag)];
	}
}

const asNoticed = (code: string | undefined): Noticed | undefined =>
	NOTICED.find((one) => one === code);

const fresh = (tag: string): Pending => ({
	id: freshId(),
	tag,
	minutes: null,
	bar: null,
	unused: false,
	noticed: [],
	damage: null,
	note: '',
	about: null
});
