import { freshId } from '$lib/fresh-id';
import type { GateOutcome } from '$core/handout/gate';
import { judgeKept, type KeptCounter } from '$core/handout/kept';
import type { Instead } from '$core/handout/nearest';
import type { HandedOut, Judged, Scanned } from '$core/handout/answers';
import type { Answered, SendJson } from '../form/send-json';
import type { Parcel } from '../outbox/parcel';
import { codeOf } from './codes';

type Item = Extract<Scanned, { kind: 'item' }>;
type Wearer = Extract<Scanned, { kind: 'wearer' }>;
type Plan = Extract<Scanned, { kind: 'plan' }>;

/** What the gate said of what lies on the counter. */
export interface GateSaid {
	outcome: GateOutcome;
	judged: Judged[];
	instead: Instead[];
	/** Answered by what this device knew. */
	kept: boolean;
}

/** What went out last. */
export interface Given {
	id: string;
	wearer: Wearer;
	tags: string[];
	task: string | null;
	dueBackAt: string | null;
	/** It waits on this device for the connection. */
	waits: boolean;
	outcome: GateOutcome;
}

/** What the desk needs of the world around it. */
export interface DeskWorld {
	send: SendJson;
	/** Keeps a request on the device until the server has it. */
	put: (parcel: Parcel) => void;
	/** What the device keeps of the counter; null: nothing yet. */
	kept: () => Promise<KeptCounter | null>;
}

const MINUTES = /^(\d{1,4})\s*M(IN)?$/i;

/**
 * The counter: person, things and task in any order, by scans alone. What is clear goes out with the third scan; what has
 * conditions waits for one press; what is refused names the nearest way that works. Scans are taken one after the other.
 */
export class Desk {
	wearer = $state<Wearer | null>(null);
	items = $state.raw<Item[]>([]);
	plan = $state<Plan | null>(null);
	/** As their own, for no one task. */
	own = $state(false);
	minutes = $state<number | null>(null);
	said = $state.raw<GateSaid | null>(null);
	given = $state.raw<Given[]>([]);
	/** The last thing on the counter went out: the next scan begins anew. */
	done = $state(false);
	refusal = $state('');
	waiting = $state(0);
	private last: Promise<void> = Promise.resolve();
	private readonly world: DeskWorld;
	/** Called when something went out, so that the page shows it. */
	private readonly changed: () => unknown;

	constructor(world: DeskWorld, changed: () => unknown = () => {}) {
		this.world = world;
		this.changed = changed;
	}

	/** What the record says that these scans contradict, as it is asked. */
	get asked() {
		return (
			this.said?.judged.flatMap(({ tag, asked }) => asked.map((one) => ({ tag, ...one }))) ?? []
		);
	}

	/** Takes a scan, or an empty line as a press of Enter. @returns when it is done with */
	scan(word: string): Promise<void> {
		this.waiting++;
		this.last = this.last
			.then(() => this.take(word.trim()))
			.catch(() => {
				this.refusal = 'This scan went wrong. Scan it again.';
			})
			.finally(() => this.waiting--);
		return this.last;
	}

	/** Clears the counter. */
	clear(): void {
		this.wearer = null;
		this.items = [];
		this.plan = null;
		this.own = false;
		this.minutes = null;
		this.said = null;
		this.done = false;
		this.refusal = '';
	}

	/** Takes something off the counter again. */
	takeOff(tag: string): Promise<void> {
		this.items = this.items.filter((one) => one.tag !== tag);
		this.said = null;
		return this.scan('GV-LOOK');
	}

	private async take(word: string): Promise<void> {
		this.refusal = '';
		const code = codeOf(word);
		if (code === 'clear') return this.clear();
		if (code === 'yes' || word === '') return this.confirm();
		if (code === 'look') return this.look();
		if (code === 'own') {
			this.own = true;
			this.plan = null;
			return this.look();
		}
		const minutes = MINUTES.exec(word)?.[1];
		if (minutes) {
			this.minutes = Number(minutes);
			return this.look();
		}
		const found = await this.find(word);
		if (found) await this.put(found);
	}

	private async find(word: string): Promise<Scanned | null> {
		const answered = await this.world.send<Scanned>('POST', '/api/counter/scan', { word });
		if (answered.kind === 'taken') return answered.value;
		if (answered.kind === 'refused') {
			this.refusal = answered.message;
			return null;
		}
		const kept = await this.world.kept();
		const found = kept && findKept(kept, word);
		if (!found)
			this.refusal = `The server cannot be reached, and this device knows no “${word}”. Write it down and scan it later.`;
		return found ?? null;
	}

	private async put(found: Scanned): Promise<void> {
		if (found.kind === 'wearer') {
			// A new person starts a new hand-out; what was scanned before anybody came is theirs.
			if (this.done || this.wearer) this.clear();
			this.wearer = found;
		} else if (found.kind === 'plan') {
			if (this.done) this.clear();
			this.plan = found;
			this.own = false;
			this.minutes = found.minutes;
		} else {
			if (this.done) {
				// More for the same person and task.
				this.items = [];
				this.done = false;
			}
			if (!this.items.some(({ tag }) => tag === found.tag)) this.items = [...this.items, found];
		}
		await this.look();
	}

	private get whole() {
		const { wearer, items, plan, own } = this;
		return wearer && items.length && (plan || own) && !this.done
			? {
					wearerId: wearer.id,
					tags: items.map(({ tag }) => tag),
					planId: plan?.id ?? null,
					minutes: plan ? this.minutes : null
				}
			: null;
	}

	/** Asks the gate once everything is there; what is clear goes out. */
	private async look(): Promise<void> {
		this.said = null;
		const asked = this.whole;
		if (!asked) return;
		const answered = await this.world.send<Omit<GateSaid, 'kept'>>(
			'POST',
			'/api/counter/gate',
			asked
		);
		if (answered.kind === 'refused') {
			this.refusal = answered.message;
			return;
		}
		this.said =
			answered.kind === 'taken' ? { ...answered.value, kept: false } : await this.askDevice();
		if (!this.said) return;
		if (this.said.outcome === 'hand out' && this.asked.length === 0) await this.give({});
	}

	/** The gate by what this device knows. */
	private async askDevice(): Promise<GateSaid | null> {
		const kept = await this.world.kept();
		const person = kept?.people.find(({ id }) => id === this.wearer?.id);
		const plan = kept?.plans.find(({ id }) => id === this.plan?.id);
		if (!kept || !person || !plan) {
			this.refusal =
				'The server cannot be reached, and this device does not know enough to answer.';
			return null;
		}
		const judged = this.items.flatMap((one): Judged[] => {
			const item = kept.items.find(({ tag }) => tag === one.tag);
			if (!item) return [];
			const { tag, family, model, size, place } = item;
			return [
				{ tag, family, model, size, place, verdict: judgeKept(kept, item, person, plan), asked: [] }
			];
		});
		const worst = judged.some(({ verdict }) => verdict.outcome === 'do not')
			? 'do not'
			: 'with conditions';
		return { outcome: worst, judged, instead: [], kept: true };
	}

	/** Enter: takes the conditions as met, or the nearest way in place of what was refused. */
	private async confirm(): Promise<void> {
		const { said } = this;
		if (!said || this.done) return;
		if (this.asked.length) {
			this.refusal = 'Say first how it is: choose an answer.';
			return;
		}
		if (said.outcome !== 'do not') return this.give({ accepted: true });
		const [way] = said.instead;
		const refused = said.judged.find(({ verdict }) => verdict.outcome === 'do not');
		if (!way || !refused) return;
		const found = await this.find(way.tag);
		if (found?.kind !== 'item') return;
		this.items = this.items.map((one) => (one.tag === refused.tag ? found : one));
		await this.look();
	}

	/** Answers what the record was asked about; then everything is looked at with it. */
	answer(because: string): Promise<void> {
		return this.queued(() => this.give({ because, accepted: true }));
	}

	/** Hands it out against the gate. */
	override(reason: string): Promise<void> {
		return this.queued(() => this.give({ override: reason, accepted: true }));
	}

	private queued(work: () => Promise<void>): Promise<void> {
		this.last = this.last.then(work).catch(() => {
			this.refusal = 'That went wrong. Do it again.';
		});
		return this.last;
	}

	private async give(how: {
		accepted?: boolean;
		because?: string;
		override?: string;
	}): Promise<void> {
		const asked = this.whole;
		const { wearer, said } = this;
		if (!asked || !wearer) return;
		const id = freshId();
		const answered: Answered<HandedOut> = said?.kept
			? { kind: 'away' }
			: await this.world.send<HandedOut>('POST', '/api/counter/hand-out', { ...asked, id, ...how });
		if (answered.kind === 'refused') {
			this.refusal = answered.message;
			return;
		}
		if (answered.kind === 'taken' && !answered.value.done) {
			const { outcome, judged } = answered.value;
			this.said = { outcome, judged, instead: said?.instead ?? [], kept: false };
			return;
		}
		if (answered.kind === 'away') {
			if (said?.outcome === 'do not' && !how.override) return;
			this.world.put({
				id,
				url: '/api/counter/hand-out',
				about: 'counter',
				name: asked.tags.join(', '),
				says: `Handed out to ${wearer.number}: ${asked.tags.join(', ')}`,
				body: { ...asked, id, ...how, offline: true }
			});
		}
		this.given = [
			{
				id,
				wearer,
				tags: asked.tags,
				task: this.plan?.task ?? null,
				dueBackAt:
					answered.kind === 'taken' && answered.value.done ? answered.value.dueBackAt : null,
				waits: answered.kind === 'away',
				outcome: said?.outcome ?? 'hand out'
			},
			...this.given
		].slice(0, 20);
		this.done = true;
		// What waits on the device changed nothing that the server could show.
		if (answered.kind === 'taken') this.changed();
	}
}

/** What a word is by what a device keeps; undefined: it knows none. */
function findKept(kept: KeptCounter, word: string): Scanned | undefined {
	const tag = word.trim().toUpperCase().replaceAll(/\s+/g, '-');
	const number = /^PLAN-?(\d+)$/.exec(tag)?.[1];
	const plan = number && kept.plans.find((one) => one.number === Number(number));
	if (plan) return { kind: 'plan', ...plan };
	const item = kept.items.find((one) => one.tag === tag);
	if (item)
		return {
			kind: 'item',
			...item,
			state: item.gate.state,
			where: item.gate.state === 'issued' ? 'issued' : 'shelf',
			number: null
		};
	const person = kept.people.find((one) => one.number.toLowerCase() === word.trim().toLowerCase());
	return person && { kind: 'wearer', id: person.id, number: person.number, name: person.name };
}
