import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { deviceOf, takesPins } from '$lib/server/access/devices';
import { handOver } from '$lib/server/access/pins';
import { doorAction, doorContext, entranceOf, nextOf, passCookies } from '$lib/server/web/entrance';
import { parse } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const device = await deviceOf(event.locals.db, entranceOf(event).deviceKey);
	return {
		takesPins: takesPins(device, new Date()),
		/** A card that was scanned where one stands. */
		who: event.url.searchParams.get('who')?.slice(0, 40) ?? '',
		next: nextOf(event.url)
	};
};

const body = z.object({
	who: z.string().trim().min(1, 'Scan your card, or type your initials.').max(40),
	pin: z.string().trim().min(1, 'Type your PIN.').max(20)
});

export const actions: Actions = {
	default: (event) =>
		doorAction(event, async (fields) => {
			const given = parse(body, fields);
			const { actor, session } = event.locals;
			const { cookies } = await handOver(doorContext(event), entranceOf(event), {
				who: given.who,
				pin: given.pin,
				from: actor && session ? { actor, sessionId: session.id } : null
			});
			forgetVisit(event.request.headers);
			passCookies(event.cookies, event.locals.origin, cookies);
			redirect(303, nextOf(event.url));
		})
};
