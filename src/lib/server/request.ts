import { error, fail, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { pathOf } from '../../core/calc/registry.ts';
import type { Context } from './context.ts';
import { asFault, Fault, STATUS } from './errors.ts';

/** What a service takes from a request. Refuses when nobody is signed in. */
export function contextOf({ locals }: Pick<RequestEvent, 'locals'>): Context {
	if (!locals.actor) throw new Fault('forbidden', 'You are signed out. Sign in again.');
	return { db: locals.db, now: () => new Date(), actor: locals.actor };
}

/** Runs the work of a load function; a fault becomes its page. */
export async function page<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (cause) {
		const fault = asFault(cause);
		if (!fault) throw cause;
		error(STATUS[fault.kind], { message: fault.message });
	}
}

/** What a form shows beside its fields. */
export interface FormFault {
	message: string;
	path: string | undefined;
}

/** Runs the work of a form action; a fault goes back to the form with its field. */
export async function action<T>(work: () => Promise<T>) {
	try {
		return await work();
	} catch (cause) {
		const fault = asFault(cause);
		if (!fault) throw cause;
		return fail(STATUS[fault.kind], { fault: { message: fault.message, path: fault.path } });
	}
}

/** A form action of one deed: its fields are checked, what comes of it is given back as `result`. */
export const deed =
	<T extends z.ZodType, R, E extends RequestEvent>(
		schema: T,
		work: (event: E, input: z.output<T>) => Promise<R>
	) =>
	(event: E) =>
		action(async () => {
			const result = await work(event, parse(schema, await formBody(event.request)));
			return { result: result ?? null };
		});

/** Runs the work of a JSON route; a fault becomes its answer. */
export async function api<T>(work: () => Promise<T>): Promise<Response> {
	try {
		return Response.json(await work());
	} catch (cause) {
		const fault = asFault(cause);
		if (!fault) throw cause;
		return Response.json(
			{ message: fault.message, path: fault.path ?? null, kind: fault.kind },
			{ status: STATUS[fault.kind] }
		);
	}
}

/** Checks unknown input; the first fault is said with its field. */
export function parse<T extends z.ZodType>(schema: T, input: unknown): z.output<T> {
	const parsed = schema.safeParse(input);
	if (parsed.success) return parsed.data;
	const [issue] = parsed.error.issues;
	throw new Fault(
		'invalid',
		issue?.message ?? 'The form is not complete.',
		pathOf(issue?.path ?? [])
	);
}

/** A JSON body; a fault when it is none. */
export async function jsonBody(request: Request): Promise<unknown> {
	try {
		return await request.json();
	} catch {
		throw new Fault('invalid', 'The request body is not JSON.');
	}
}

/** The fields of a form; names that end in [] gather into a list. */
export async function formBody(request: Request): Promise<Record<string, unknown>> {
	const form = await request.formData();
	const fields: Record<string, unknown> = {};
	for (const name of new Set(form.keys()))
		fields[name.replace(/\[\]$/, '')] = name.endsWith('[]') ? form.getAll(name) : form.get(name);
	return fields;
}

/** An id made by the client. */
export const clientId = z.uuid('The page sent no id; load it again.');
