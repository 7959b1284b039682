import { type ActionFailure, fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { parse as parseCookie } from 'node:querystring';
import { z } from 'zod';
import { PEOPLE } from '$lib/server/demo/scenario';
import { asRefusal, STATUS } from '$lib/server/kernel/refusal';
import { signIn } from '$lib/server/web/auth';
import { config } from '$lib/server/web/config';
import { isLoopback } from '$lib/server/web/loopback';
import { formBody } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

const credentials = z.object({ email: z.string().max(200), password: z.string().max(200) });

/** The password of the demo people, where the app is reached on this very machine and nowhere else. */
const demoPassword = (event: Pick<RequestEvent, 'url' | 'getClientAddress'>) =>
	isLoopback(event.url.hostname) && isLoopback(event.getClientAddress())
		? config().GREVAN_DEMO_PASSWORD
		: undefined;

export const load: PageServerLoad = (event) => {
	const { locals, url } = event;
	if (locals.actor) redirect(303, nextOf(url));
	return {
		demo: demoPassword(event) ? PEOPLE.map(({ name, email, role }) => ({ name, email, role })) : []
	};
};

/** Only a path of our own may be gone to. */
function nextOf(url: URL): string {
	const next = url.searchParams.get('next') ?? '/';
	return /^\/(?![/\\])/.test(next) ? next : '/';
}

async function enter(event: RequestEvent, email: string, password: string) {
	const result = await signIn(event.locals.auth, event.locals.origin, {
		email,
		password,
		client: event.getClientAddress()
	});
	if (!result.ok) return fail(result.status, { message: result.message, email });
	for (const cookie of result.cookies) {
		const [pair = '', ...attributes] = cookie.split('; ');
		const at = pair.indexOf('=');
		const set = parseCookie(attributes.join('&'));
		event.cookies.set(pair.slice(0, at), decodeURIComponent(pair.slice(at + 1)), {
			path: '/',
			httpOnly: true,
			sameSite: 'lax',
			secure: event.locals.origin.startsWith('https:'),
			maxAge: Number(set['Max-Age'] ?? 0)
		});
	}
	redirect(303, nextOf(event.url));
}

/** Goes in with the fields of the form; what is wrong with them goes back to it. */
async function withFields(
	event: RequestEvent,
	work: (
		fields: Record<string, unknown>
	) => Promise<ActionFailure<{ message: string; email: string }>>
) {
	let fields: Record<string, unknown>;
	try {
		fields = await formBody(event.request);
	} catch (cause) {
		const refusal = asRefusal(cause);
		if (!refusal) throw cause;
		return fail(STATUS[refusal.kind], { message: refusal.message, email: '' });
	}
	return work(fields);
}

export const actions: Actions = {
	enter: (event) =>
		withFields(event, async (fields) => {
			const given = credentials.safeParse(fields);
			if (!given.success)
				return fail(422, { message: 'Type your address and password.', email: '' });
			return enter(event, given.data.email.trim().toLowerCase(), given.data.password);
		}),
	demo: (event) =>
		withFields(event, async ({ email }) => {
			const password = demoPassword(event);
			const person = PEOPLE.find((p) => p.email === email);
			if (!password || !person) return fail(403, { message: 'There is no demo here.', email: '' });
			return enter(event, person.email, password);
		})
};
