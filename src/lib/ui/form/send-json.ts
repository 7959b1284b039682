import { personHeaders } from '$lib/ui/shell/person';
import { asksProof, proof } from '$lib/ui/shell/proof.svelte';

/** What became of something that was sent as JSON. */
export type Answered<T> =
	| { kind: 'taken'; value: T }
	| { kind: 'refused'; status: number; message: string; path: string | null }
	/** Nobody was reached, or the server failed: to be sent again. */
	| { kind: 'away' };

export type SendJson = <T>(
	method: 'POST' | 'PUT',
	url: string,
	body: object
) => Promise<Answered<T>>;

/** Sends JSON and says what became of it. */
export const sendJson: SendJson = async <T>(
	method: 'POST' | 'PUT',
	url: string,
	body: object
): Promise<Answered<T>> => {
	try {
		const response = await fetch(url, {
			method,
			headers: { 'content-type': 'application/json', ...personHeaders() },
			body: JSON.stringify(body)
		});
		if (response.status >= 500) return { kind: 'away' };
		const said = (await response.json()) as T & {
			message?: string;
			path?: string | null;
		};
		if (response.ok) return { kind: 'taken', value: said };
		if (asksProof(said) && (await proof.ask(said))) return await sendJson<T>(method, url, body);
		return {
			kind: 'refused',
			status: response.status,
			message: said.message ?? 'The server refused this.',
			path: said.path ?? null
		};
	} catch {
		return { kind: 'away' };
	}
};
