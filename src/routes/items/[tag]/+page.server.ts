import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { proceduresOf } from '$core/data/procedures';
import { may } from '$lib/server/context';
import { startRun } from '$lib/server/inspections';
import { itemPage } from '$lib/server/items';
import { pairTag } from '$lib/server/filters';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await itemPage(context, event.locals.site, event.params.tag);
		return {
			...found,
			procedures: proceduresOf(found.item.family).map(({ key, name, school }) => ({
				key,
				name,
				school: school ?? null
			})),
			pairTag: found.pair ? pairTag(found.pair.pair.number) : null,
			mayInspect: may(context.actor.role, 'inspect'),
			mayRelease: may(context.actor.role, 'release')
		};
	});

export const actions: Actions = {
	inspect: async (event) => {
		const result = await action(async () => {
			const form = parse(
				z.object({ id: clientId, procedure: z.string().max(60).optional() }),
				await formBody(event.request)
			);
			return startRun(contextOf(event), { ...form, tag: event.params.tag });
		});
		if ('status' in result) return result;
		redirect(303, `/runs/${result.id}`);
	}
};
