import { z } from 'zod';
import { may, requirePermission } from '$lib/server/kernel/permissions';
import { matchNames, namesPage } from '$lib/server/people/own-data';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'see wearers');
		return {
			...(await namesPage(context.db)),
			mayMatch: may(context.actor.role, 'match names')
		};
	});

export const actions: Actions = {
	default: formAction(
		z.object({
			...requested,
			names: z.array(z.string().max(120)).max(2000).default([]),
			wearers: z.array(z.string().max(60)).max(2000).default([])
		}),
		async (event: RequestEvent, { names, wearers, ...input }) =>
			matchNames(contextOf(event), {
				...input,
				matches: names.map((name, i) => ({ name, wearerId: wearers[i] || null }))
			})
	)
};
