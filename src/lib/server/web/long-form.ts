import { fail, type RequestEvent } from '@sveltejs/kit';
import {
	defaults,
	setError,
	superValidate,
	type SuperValidated
} from 'sveltekit-superforms/server';
import { zod4 } from 'sveltekit-superforms/adapters';
import type { z } from 'zod';
import { asRefusal, STATUS } from '../kernel/refusal.ts';
import { action, formBody } from './request.ts';

/** What the fields of a form hold as a person typed it. */
export type Typed = Record<string, string>;

/** A long form as the page gets it: what stands in its fields, and what is said against them. */
export type LongForm = SuperValidated<Typed>;

const shown = (value: unknown): string =>
	Array.isArray(value) ? value.join('\n') : String(value ?? '');

/**
 * A form of many fields. All that is refused of it comes at once, each at its field, and what was typed stays as it
 * was typed.
 * @param schema what its fields must be; fields of the page that are files go by another way
 */
export function longForm<S extends z.ZodObject>(schema: S) {
	const adapter = zod4(schema);
	const fields = Object.keys(schema.shape);
	const blank = defaults(adapter);
	const typed = (values: Record<string, unknown>): Typed =>
		Object.fromEntries(fields.map((name) => [name, shown(values[name])]));
	return {
		/**
		 * The form with what is known in its fields.
		 * @param of what it is about and in which version: a page shows what was sent only in the form it was sent from
		 */
		filled(values: Record<string, unknown>, of: string): LongForm {
			return { ...blank, id: of, data: typed(values), errors: {} } as LongForm;
		},
		/** A form action: checks the fields, does the work, and gives back its `result` or what is refused. */
		action:
			<E extends RequestEvent, R>(work: (event: E, input: z.output<S>) => Promise<R>) =>
			(event: E) =>
				action(async () => {
					const body = await formBody(event.request);
					const id = body.__superform_id;
					const checked = await superValidate(body as never, adapter, {
						...(typeof id === 'string' ? { id } : {})
					});
					const form = { ...checked, data: typed(body) } as unknown as LongForm;
					if (!checked.valid) return fail(STATUS.invalid, { form });
					try {
						return { form, result: (await work(event, checked.data as z.output<S>)) ?? null };
					} catch (cause) {
						const refusal = asRefusal(cause);
						if (!refusal) throw cause;
						const path = refusal.path && fields.includes(refusal.path) ? refusal.path : '';
						return setError(form, path as never, refusal.message, {
							status: STATUS[refusal.kind] as never
						});
					}
				})
	};
}
