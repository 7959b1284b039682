import { enhance as kitEnhance } from '$app/forms';
import type { SubmitFunction } from '@sveltejs/kit';
import { SignedSend } from './signed-send';

/** SvelteKit's enhance, with who sends and an id for each request, so that the server does it once. */
export function enhance(form: HTMLFormElement, submit?: SubmitFunction) {
	const send = new SignedSend();
	return kitEnhance(form, async (input) => {
		const after = await submit?.(input);
		send.sign(input.formData);
		return async (answered) => {
			send.answered(answered.result.type);
			if (after) await after(answered);
			else await answered.update();
		};
	});
}
