import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { limitAddress } from '$lib/server/access/attempts';
import { choosePasswordByLink, linkOf } from '$lib/server/access/links';
import { Refusal } from '$lib/server/kernel/refusal';
import { doorAction, doorContext } from '$lib/server/web/entrance';
import { page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

/** Links that one address may open in a minute. Site default. */
const TRIES = 20;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = doorContext(event);
		await limitAddress(context, 'link', event.getClientAddress(), TRIES);
		const { purpose, name, email } = await linkOf(context, event.params.token);
		return { purpose, name, email };
	});

const body = z.object({
	password: z.string().max(200),
	again: z.string().max(200)
});

export const actions: Actions = {
	default: (event) =>
		doorAction(event, async (fields) => {
			const { password, again } = parse(body, fields);
			if (password !== again)
				throw new Refusal('invalid', 'The two are not the same. Type both again.', 'again');
			const context = doorContext(event);
			await limitAddress(context, 'link', event.getClientAddress(), TRIES);
			await choosePasswordByLink(event.locals.auth, context, event.params.token, password);
			redirect(303, '/sign-in');
		})
};
