import { page } from '$app/state';
import { PERSON_FIELD, PERSON_HEADER } from '$lib/person-header';

/** Who this page was made for; what it sends is theirs. */
const personHere = (): string | undefined =>
	(page.data as { actor?: { id: string } | null }).actor?.id;

/** Says in the fields of a form whose it is. */
export function signFields(fields: FormData): void {
	const id = personHere();
	if (id) fields.set(PERSON_FIELD, id);
}

/** Says in the headers of a request whose it is. */
export function personHeaders(): Record<string, string> {
	const id = personHere();
	return id ? { [PERSON_HEADER]: id } : {};
}
