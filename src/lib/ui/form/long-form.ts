import { superForm, type SuperForm } from 'sveltekit-superforms/client';
import type { SuperValidated } from 'sveltekit-superforms';
import { SignedSend } from './signed-send';

const AWAY = 'The server could not be reached. What you typed is still here; do it again.';

/**
 * A form of many fields on the page: what is refused stands at each field, the first of them gets the focus, and what
 * was typed stays, also where no answer came. Sent again without an answer it goes under the same id.
 * @param filled what stands in its fields, as the page got it
 * @param done what to do once it was taken
 */
export function longForm(
	filled: SuperValidated<Record<string, string>>,
	done: () => void = () => undefined
): SuperForm<Record<string, string>> {
	const send = new SignedSend();
	const made: SuperForm<Record<string, string>> = superForm(filled, {
		dataType: 'form',
		resetForm: false,
		taintedMessage: null,
		validators: false,
		onSubmit: ({ formData }) => send.sign(formData),
		onResult({ result }) {
			send.answered(result.type);
			if (result.type === 'success') done();
		},
		onError() {
			made.errors.set({ _errors: [AWAY] });
		}
	});
	return made;
}

/** What is said against a form as a whole, where it is about no one field. */
export const refusedWhole = (errors: { _errors?: string[] }) =>
	errors._errors?.[0] ? { message: errors._errors[0] } : null;
