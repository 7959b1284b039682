import { error, fail, type RequestEvent } from '@sveltejs/kit';
import { z } from 'zod';
import { pathOf } from '../../../core/calc/registry.ts';
import type { Context } from '../kernel/context.ts';
import { PERSON_FIELD, PERSON_HEADER } from '../../person-header.ts';
import { asRefusal, Refusal, STATUS } from '../kernel/refusal.ts';
import { isPlain } from './plain-text.ts';

/** What a service takes from a request. Refuses when nobody is signed in. */
export function contextOf({ locals }: Pick<RequestEvent, 'locals'>): Context {
	if (!locals.actor) throw new Refusal('forbidden', 'You are signed out. Sign in again.');
	const { db, site, actor, session } = locals;
	return { db, site, actor, now: () => new Date(), proof: session?.proof ?? null };
}

/** Runs the work of a load function; a refusal becomes its page. */
export async function page<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		error(STATUS[refusal.kind], { message: refusal.message });
	}
}

/** Runs the work of a form action; a refusal goes back to the form with its field. */
export async function action<T>(work: () => Promise<T>) {
	try {
		return await work();
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		const { kind, message, path, fields } = refusal;
		return fail(STATUS[kind], { refusal: { kind, message, path, fields: [...fields] } });
	}
}

/** A form action: its fields are checked, then the work is done, which gives the page what it shows or redirects. */
export const formAction =
	<T extends z.ZodType, R, E extends RequestEvent>(
		schema: T,
		work: (event: E, input: z.output<T>) => Promise<R>
	) =>
	(event: E) =>
		action(async () => work(event, parse(schema, await formBody(event.request))));

/** A form action of one write; what comes of it is given back as `result`. */
export const formWrite = <T extends z.ZodType, R, E extends RequestEvent>(
	schema: T,
	work: (event: E, input: z.output<T>) => Promise<R>
) =>
	formAction(schema, async (event: E, input) => ({ result: (await work(event, input)) ?? null }));

/** A refusal as the answer to a program. */
export const refused = ({ kind, message, path }: Refusal): Response =>
	Response.json({ message, path: path ?? null, kind }, { status: STATUS[kind] });

/** Runs the work of a JSON route; a refusal becomes its answer. */
export const api = <T>(work: () => Promise<T>): Promise<Response> =>
	download(async () => Response.json(await work()));

/** Sends a file; a refusal goes back as to a program, so that the page that asked can say it. */
export async function download(work: () => Promise<Response>): Promise<Response> {
	try {
		return await work();
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		return refused(refusal);
	}
}

/** Checks unknown input; all that is refused of it comes at once, each with its field. */
export function parse<T extends z.ZodType>(schema: T, input: unknown): z.output<T> {
	const parsed = schema.safeParse(input);
	if (parsed.success) return parsed.data;
	const fields = parsed.error.issues.map(({ path, message }) => ({ path: pathOf(path), message }));
	const [first] = fields;
	throw new Refusal('invalid', first?.message ?? 'The form is not complete.', first?.path, fields);
}

/** Under whose session each request came. */
const sessions = new WeakMap<Request, string>();

const otherPerson = () =>
	new Refusal(
		'other person',
		'Somebody else is signed in here now. Nothing was taken: it waits for the person who gave it.'
	);

/**
 * Notes under whose session a request came.
 * @returns why it is refused, where its page says that somebody else gave it
 */
export function noteSession(request: Request, actorId: string): Refusal | null {
	sessions.set(request, actorId);
	const given = request.headers.get(PERSON_HEADER);
	return given === null || given === actorId ? null : otherPerson();
}

/**
 * A JSON body.
 * @throws Refusal where it is none, is too long, or holds text that cannot be kept
 */
export async function jsonBody(request: Request): Promise<unknown> {
	notTooLong(request, MOST_TEXT);
	const text = await bodyOf(() => request.text());
	if (text.length > MOST_TEXT) throw tooMuch();
	let body: unknown;
	try {
		body = JSON.parse(text);
	} catch {
		throw new Refusal('invalid', 'The request body is not JSON.');
	}
	// What escapes hide shows only once they are read.
	if (!isPlain(text) || (/\\u/i.test(text) && !isPlain(JSON.stringify(body)))) throw unreadable();
	return body;
}

/** Characters of JSON or of a form without files; a whole trace of twenty thousand readings fits. */
const MOST_TEXT = 2_000_000;
const MOST_FIELDS = 2000;

const tooMuch = () => new Refusal('too much', 'This is more than one request may hold.');
const unreadable = () =>
	new Refusal('invalid', 'There are characters in it that are no text. Type it again.');

function notTooLong(request: Request, most: number): void {
	if (Number(request.headers.get('content-length') ?? 0) > most) throw tooMuch();
}

/** Reads a body; one that is broken, or longer than the server takes, is refused. */
async function bodyOf<T>(read: () => Promise<T>): Promise<T> {
	try {
		return await read();
	} catch (cause) {
		if ((cause as { status?: unknown }).status === 413) throw tooMuch();
		throw new Refusal('invalid', 'The request did not arrive whole. Send it again.');
	}
}

/** The fields of a form; names that end in [] gather into a list. */
export async function formBody(request: Request): Promise<Record<string, unknown>> {
	const files = /^multipart\//i.test(request.headers.get('content-type') ?? '');
	if (!files) notTooLong(request, MOST_TEXT);
	const form = await bodyOf(() => request.formData());
	// Without a prototype: no name of a field is anything but a name.
	const fields = Object.create(null) as Record<string, unknown>;
	let [count, length] = [0, 0];
	for (const [key, value] of form) {
		const name = key.replace(/\[\]$/, '');
		length += key.length + (typeof value === 'string' ? value.length : 0);
		if (++count > MOST_FIELDS || length > MOST_TEXT) throw tooMuch();
		if (!isPlain(key) || (typeof value === 'string' && !isPlain(value))) throw unreadable();
		if (key.endsWith('[]')) ((fields[name] ??= []) as unknown[]).push(value);
		else fields[name] ??= value;
	}
	const { [PERSON_FIELD]: given } = fields;
	delete fields[PERSON_FIELD];
	const actorId = sessions.get(request);
	if (actorId !== undefined && typeof given === 'string' && given !== actorId) throw otherPerson();
	// A page without scripts makes no ids: what it sends is done each time that it comes.
	fields.requestId ??= crypto.randomUUID();
	return fields;
}

/** An id made by the client. */
export const clientId = z.uuid('The page sent no id; load it again.');

/** What every form that changes something sends beside its fields: a second send finds the first one's answer. */
export const requested = { requestId: clientId };
