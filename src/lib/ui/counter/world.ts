import type { KeptCounter } from '$core/handout/kept';
import { type SendJson, sendJson } from '../form/send-json';
import { outbox } from '../outbox/outbox.svelte';
import { personHeaders } from '../shell/person';
import type { DeskWorld } from './desk.svelte';

/** What was given before and waits goes first: until then what comes after waits behind it. */
const inTurn: SendJson = (method, url, body) =>
	/(hand-out|return)$/.test(url) && outbox.waiting.some(({ about }) => about === 'counter')
		? Promise.resolve({ kind: 'away' })
		: sendJson(method, url, body);

let known: Promise<KeptCounter | null> | undefined;

/** What the device keeps of the counter: from the server, or as its worker kept it. */
function kept(): Promise<KeptCounter | null> {
	known ??= fetch('/api/counter/kept', { headers: personHeaders() })
		.then(async (answer) => (answer.ok ? ((await answer.json()) as KeptCounter) : null))
		.catch(() => null);
	void known.then((found) => {
		if (!found) known = undefined;
	});
	return known;
}

/** Has what the counter needs on the device, so that it goes on when the network does not. */
export function bringCounter(): void {
	known = undefined;
	void kept();
}

export const counterWorld: DeskWorld = {
	send: inTurn,
	put: (parcel) => outbox.put(parcel),
	kept
};
