import { z } from 'zod';
import { may } from '$lib/server/context';
import { disposeLot, lotPage, recallLot } from '$lib/server/filter-store';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await lotPage(context.db, parse(clientId, event.params.id));
		return {
			...found,
			asOf: dayAt(context.now(), event.locals.site.timeZone),
			mayKeep: may(context.actor.role, 'keep the filter store')
		};
	});

export const actions: Actions = {
	recall: (event) =>
		action(async () => {
			const { reason } = parse(
				z.object({
					reason: z.string().trim().min(1, 'Say why, and who asked for the recall.').max(300)
				}),
				await formBody(event.request)
			);
			const id = parse(clientId, event.params.id);
			return { recalled: await recallLot(contextOf(event), event.locals.site, { id, reason }) };
		}),
	dispose: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					seen: z.coerce.number().int(),
					why: z.string().trim().min(1, 'Say why they go.').max(300)
				}),
				await formBody(event.request)
			);
			await disposeLot(contextOf(event), { id: parse(clientId, event.params.id), ...form });
			return { disposed: form.seen };
		})
};
