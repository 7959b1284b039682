import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { config } from '$lib/server/config';
import { may } from '$lib/server/context';
import { runPage, startRun } from '$lib/server/inspections';
import { itemPage } from '$lib/server/items';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await runPage(context, parse(clientId, event.params.id));
		const signed = found.run.signedAt
			? await itemPage(context, event.locals.site, found.item.tag)
			: null;
		return {
			...found,
			hasBench: config().GREVAN_BA_BENCH !== undefined,
			mayInspect: may(context.actor.role, 'inspect'),
			now: signed && {
				verdict: signed.verdict,
				defects: signed.defects,
				hasJob: signed.job !== null
			}
		};
	});

const supersede = z.object({
	id: clientId,
	reason: z.string().trim().max(300, 'At most 300 characters.')
});

export const actions: Actions = {
	supersede: async (event) => {
		const result = await action(async () => {
			const { id, reason } = parse(supersede, await formBody(event.request));
			const context = contextOf(event);
			const { item, run } = await runPage(context, parse(clientId, event.params.id));
			return startRun(context, { id, tag: item.tag, supersede: { run: run.id, reason } });
		});
		if ('status' in result) return result;
		redirect(303, `/runs/${result.id}`);
	}
};
