import { fail, redirect, type RequestEvent } from '@sveltejs/kit';
import { parse as parseCookie } from 'node:querystring';
import { z } from 'zod';
import { signIn } from '$lib/server/auth';
import { config } from '$lib/server/config';
import { PEOPLE } from '$lib/server/demo/scenario';
import { formBody } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

const credentials = z.object({ email: z.string().max(200), password: z.string().max(200) });

export const load: PageServerLoad = ({ locals, url }) => {
	if (locals.actor) redirect(303, nextOf(url));
	return {
		demo: config().GREVAN_DEMO_PASSWORD
			? PEOPLE.map(({ name, email, role }) => ({ name, email, role }))
			: []
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

export const actions: Actions = {
	enter: async (event) => {
		const given = credentials.safeParse(await formBody(event.request));
		if (!given.success) return fail(422, { message: 'Type your address and password.', email: '' });
		return enter(event, given.data.email.trim().toLowerCase(), given.data.password);
	},
	demo: async (event) => {
		const password = config().GREVAN_DEMO_PASSWORD;
		const { email } = await formBody(event.request);
		const person = PEOPLE.find((p) => p.email === email);
		if (!password || !person) return fail(403, { message: 'There is no demo here.', email: '' });
		return enter(event, person.email, password);
	}
};
