import { signFields } from '$lib/ui/shell/person';

/** The fields of a form as one text, to tell whether it is sent again as it was. */
const contentOf = (fields: FormData): string =>
	JSON.stringify(
		[...fields].map(([name, value]) =>
			value instanceof File ? [name, value.name, value.size, value.lastModified] : [name, value]
		)
	);

/**
 * What one form sends: says whose it is and under which id. Pressed twice, or sent again because no answer came, the
 * same fields go with the same id, so that the server does them once. An answer ends it.
 */
export class SignedSend {
	private unanswered: { content: string; id: string } | undefined;

	sign(fields: FormData): void {
		const content = contentOf(fields);
		if (this.unanswered?.content !== content)
			this.unanswered = { content, id: crypto.randomUUID() };
		fields.set('requestId', this.unanswered.id);
		signFields(fields);
	}

	/** @param type of the result; an error is no answer */
	answered(type: string): void {
		if (type !== 'error') this.unanswered = undefined;
	}
}
