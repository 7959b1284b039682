import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { hasAdmin, makeFirstAdmin } from '$lib/server/site/set-up';
import { signIn } from '$lib/server/access/sign-in';
import { Refusal } from '$lib/server/kernel/refusal';
import {
	doorAction,
	doorContext,
	entranceOf,
	keepDeviceCookie,
	passCookies
} from '$lib/server/web/entrance';
import { parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async ({ locals }) => {
	if (locals.actor) redirect(303, '/');
	if (await hasAdmin(locals.db)) redirect(303, '/sign-in');
	return {};
};

const first = z.object({
	code: z.string().trim().min(1, 'Type the code that the start printed.').max(40),
	name: z.string().trim().min(1, 'Type your name.').max(80),
	initials: z
		.string()
		.trim()
		.regex(/^\p{L}{1,4}$/u, 'Initials are one to four letters.'),
	email: z.email('Type an address such as name@site.example.').max(200),
	password: z.string().max(200),
	again: z.string().max(200)
});

export const actions: Actions = {
	default: (event) =>
		doorAction(event, async (fields) => {
			const { again, ...given } = parse(first, fields);
			if (given.password !== again)
				throw new Refusal('invalid', 'The two are not the same. Type both again.', 'again');
			const context = doorContext(event);
			const at = entranceOf(event);
			await makeFirstAdmin(event.locals.auth, context, at.client, given);
			const entered = await signIn(context, at, { ...given, shared: false });
			passCookies(event.cookies, event.locals.origin, entered.cookies);
			if ('deviceKey' in entered)
				keepDeviceCookie(event.cookies, event.locals.origin, entered.deviceKey);
			redirect(303, '/set-up/site');
		})
};
