import { z } from 'zod';
import { stationOf } from '$core/data/families';
import { lookInto, recallPage } from '$lib/server/faults/recalls';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formWrite, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		const found = await recallPage(db, parse(clientId, event.params.id));
		return {
			...found,
			items: found.items.map((row) => ({
				...row,
				station: stationOf(row.family, row.station).name
			})),
			mayLook: may(actor.role, 'recall a lot')
		};
	});

export const actions: Actions = {
	look: formWrite(
		z.object({
			...requested,
			tag: z.string().trim().min(1).max(60),
			found: z.string().trim().min(1, 'Say what was found.').max(300)
		}),
		(event: RequestEvent, form) =>
			lookInto(contextOf(event), { ...form, recallId: event.params.id ?? '' })
	)
};
