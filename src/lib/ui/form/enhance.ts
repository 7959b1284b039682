import { enhance as kitEnhance } from '$app/forms';
import type { SubmitFunction } from '@sveltejs/kit';
import { asksProof, proof } from '$lib/ui/shell/proof.svelte';
import { SignedSend } from './signed-send';

/**
 * SvelteKit's enhance, with who sends and an id for each request, so that the server does it once. Where the server
 * asks its person to show first that it is them, they are asked and it goes out again.
 */
export function enhance(form: HTMLFormElement, submit?: SubmitFunction) {
	const send = new SignedSend();
	return kitEnhance(form, async (input) => {
		const after = await submit?.(input);
		send.sign(input.formData);
		return async (answered) => {
			const { result } = answered;
			send.answered(result.type);
			const refusal: unknown = result.type === 'failure' ? result.data?.refusal : undefined;
			if (asksProof(refusal) && (await proof.ask(refusal))) form.requestSubmit(input.submitter);
			else if (after) await after(answered);
			else await answered.update();
		};
	});
}
