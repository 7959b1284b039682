import { z } from 'zod';
import { disposeLot, lotPage, recallLot } from '$lib/server/filters/store';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await lotPage(context.db, parse(clientId, event.params.id));
		return {
			...found,
			asOf: todayOf(context),
			mayKeep: may(context.actor.role, 'keep the stores')
		};
	});

export const actions: Actions = {
	recall: formAction(
		z.object({
			...requested,
			reason: z.string().trim().min(1, 'Say why, and who asked for the recall.').max(300)
		}),
		async (event: RequestEvent, input) => {
			const id = parse(clientId, event.params.id);
			return { recalled: await recallLot(contextOf(event), { ...input, id }) };
		}
	),
	dispose: formAction(
		z.object({
			...requested,
			seen: z.coerce.number().int(),
			why: z.string().trim().min(1, 'Say why they go.').max(300)
		}),
		async (event: RequestEvent, form) => {
			await disposeLot(contextOf(event), { ...form, id: parse(clientId, event.params.id) });
			return { disposed: form.seen };
		}
	)
};
