import { deserialize } from '$app/forms';
import type { ActionResult } from '@sveltejs/kit';
import { signFields } from '$lib/ui/shell/person';
import { asksProof, proof } from '$lib/ui/shell/proof.svelte';

/** Why something was not taken. */
export interface Refusal {
	message: string;
	path?: string;
}

export type Sent<T> =
	| { refused: Refusal }
	/** With the result as the page would apply it. */
	| { refused: null; data: T | undefined; result: ActionResult };

const AWAY: Refusal = { message: 'The server could not be reached. Do it again.' };
const FAILED: Refusal = { message: 'The server failed. Look again, then do it again.' };

/** Ids of what was sent and never answered: sent again as it was, it goes under the same id. */
const unanswered = new Map<string, string>();

/** Sends something to an action of the page without leaving it; what goes wrong comes back in words. */
export async function sendAction<T = unknown>(
	action: string,
	fields: Record<string, string>
): Promise<Sent<T>> {
	const body = new FormData();
	for (const [name, value] of Object.entries(fields)) body.set(name, value);
	const content = JSON.stringify([location.pathname, action, fields]);
	const requestId = unanswered.get(content) ?? crypto.randomUUID();
	unanswered.set(content, requestId);
	body.set('requestId', requestId);
	signFields(body);
	try {
		const answer = await fetch(action, {
			method: 'POST',
			headers: { accept: 'application/json', 'x-sveltekit-action': 'true' },
			body
		});
		unanswered.delete(content);
		const result = deserialize<Record<string, unknown>, { refusal?: Refusal & { kind?: string } }>(
			await answer.text()
		);
		if (result.type === 'failure' && asksProof(result.data?.refusal))
			if (await proof.ask(result.data.refusal)) return sendAction<T>(action, fields);
		if (result.type === 'failure') return { refused: result.data?.refusal ?? FAILED };
		if (result.type === 'error') return { refused: FAILED };
		const data = result.type === 'success' ? (result.data as T | undefined) : undefined;
		return { refused: null, data, result };
	} catch {
		return { refused: AWAY };
	}
}
