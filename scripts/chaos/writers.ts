import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { Chance } from '../../src/core/stats/chance.ts';

/** One deed that a writer wants done once. */
export interface Deed {
	kind: string;
	id: string;
	/** Taken, refused for good, or not known. */
	state: 'open' | 'taken' | 'refused';
	says?: string;
	/** How its effect and its entry in the log are found; by id without. */
	mark: string;
}

export interface Client {
	address: string;
	cookie: string;
	person: string;
}

/** An impatient client sends again after so long, though the first try may still be under way. */
const PATIENCE_MS = 6000;
const NOT_NOW = ['busy', 'unavailable', 'proof'];

/** @returns whether it was taken; null where nobody knows, and it is to be sent again */
async function said(response: Response): Promise<{ taken: boolean; says: string } | null> {
	const ours = response.headers.get('x-grevan-person') !== null;
	const text = await response.text();
	if (!ours || response.status >= 500 || response.status === 429 || response.status === 401)
		return null;
	let body: { type?: string; data?: string; location?: string; status?: number };
	try {
		body = JSON.parse(text) as typeof body;
	} catch {
		return null;
	}
	if (body.type === 'success' || body.type === 'redirect') return { taken: true, says: '' };
	if (body.type === 'error') return null;
	const data = body.data ?? text;
	if (NOT_NOW.some((kind) => data.includes(`"${kind}"`))) return null;
	return { taken: false, says: data.slice(0, 300) };
}

/** Sends a form to an action of a page, once. */
export async function sendForm(
	{ address, cookie, person }: Client,
	path: string,
	fields: Record<string, string>
): Promise<{ taken: boolean; says: string } | null> {
	try {
		const response = await fetch(`${address}${path}`, {
			method: 'POST',
			redirect: 'manual',
			signal: AbortSignal.timeout(PATIENCE_MS),
			headers: {
				origin: address,
				cookie,
				accept: 'application/json',
				'x-sveltekit-action': 'true',
				'x-grevan-person': person
			},
			body: new URLSearchParams(fields)
		});
		return await said(response);
	} catch {
		return null;
	}
}

/** Sends what a device kept, in one batch. @returns what was said to each that was answered */
export async function sendBatch(
	{ address, cookie, person }: Client,
	parcels: readonly { id: string; url: string; body: object }[]
): Promise<{ id: string; status: number; body: { kind?: string; message?: string } }[]> {
	try {
		const response = await fetch(`${address}/api/outbox`, {
			method: 'POST',
			signal: AbortSignal.timeout(PATIENCE_MS),
			headers: {
				origin: address,
				cookie,
				'content-type': 'application/json',
				'x-grevan-person': person
			},
			body: JSON.stringify({ parcels })
		});
		const body = (await response.json()) as { results?: [] };
		return response.ok ? (body.results ?? []) : [];
	} catch {
		return [];
	}
}

/** Does one deed after the other, each until it is taken or refused, or the end has come. */
export class Writer {
	readonly deeds: Deed[] = [];
	constructor(
		readonly client: Client,
		private readonly dice: Chance,
		private readonly over: () => boolean
	) {}

	deed(kind: string, id: string = randomUUID(), mark = id): Deed {
		const deed: Deed = { kind, id, state: 'open', mark };
		this.deeds.push(deed);
		return deed;
	}

	/**
	 * Sends until there is an answer. What was sent once is sent until its fate is known, though the end has come:
	 * the server may still be at it, and would do it after everything was counted.
	 * @returns the answer; null where the end came before the first try
	 */
	async until<T>(send: () => Promise<T | null>): Promise<T | null> {
		if (this.over()) return null;
		for (;;) {
			const answer = await send();
			if (answer !== null) return answer;
			await pause(this.dice.int(50, 600));
		}
	}

	/** Does a deed by a form. @returns whether it was taken */
	async form(deed: Deed, path: string, fields: Record<string, string>): Promise<boolean> {
		const answer = await this.until(() => sendForm(this.client, path, fields));
		if (!answer) return false;
		deed.state = answer.taken ? 'taken' : 'refused';
		deed.says = answer.says;
		return answer.taken;
	}

	/** Goes on until the end. */
	async run(round: (writer: Writer) => Promise<void>): Promise<void> {
		while (!this.over()) {
			await round(this);
			await pause(this.dice.int(20, 200));
		}
	}
}
