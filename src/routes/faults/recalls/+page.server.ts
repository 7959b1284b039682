import { z } from 'zod';
import { recallList, recallParts } from '$lib/server/faults/recalls';
import { lotsOfParts } from '$lib/server/faults/parts';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page } from '$lib/server/web/request';
import { redirect } from '@sveltejs/kit';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { db, actor } = context;
		const [list, lots] = await Promise.all([recallList(context), lotsOfParts(db)]);
		return {
			...list,
			/** Lots that can be called back, with how many sit in items and lie in the store. */
			lots: lots.filter(({ recalled }) => !recalled),
			chosen: event.url.searchParams.get('lot') ?? '',
			mayRecall: may(actor.role, 'recall a lot')
		};
	});

export const actions: Actions = {
	recall: formAction(
		z.object({
			id: clientId,
			lotId: z.uuid('Choose the lot.').max(40),
			why: z.string().trim().min(1, 'Say what is wrong with them.').max(300)
		}),
		async (event: RequestEvent, form) => {
			const { recallId } = await recallParts(contextOf(event), form);
			redirect(303, `/faults/recalls/${recallId}`);
		}
	)
};
