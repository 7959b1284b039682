import { z } from 'zod';
import { DISCARD_REASONS } from '$core/filters/ledger';
import { may } from '$lib/server/context';
import { addWear, discardPair, pairPage } from '$lib/server/filter-pairs';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await pairPage(context, event.locals.site, event.params.tag);
		return {
			...found,
			ledger: { ...found.ledger, used: Number.isFinite(found.ledger.used) ? found.ledger.used : 1 },
			mayOpen: may(context.actor.role, 'open filters')
		};
	});

export const actions: Actions = {
	wear: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					id: clientId,
					planId: z.uuid('Choose the task it was worn for.'),
					wornOn: z.iso.date('Choose the day.'),
					minutes: z.coerce.number('Type the minutes of wear.')
				}),
				await formBody(event.request)
			);
			return {
				worn: await addWear(contextOf(event), event.locals.site, { ...form, tag: event.params.tag })
			};
		}),
	discard: (event) =>
		action(async () => {
			const { reason } = parse(
				z.object({ reason: z.enum(DISCARD_REASONS, 'Say why it goes.') }),
				await formBody(event.request)
			);
			await discardPair(contextOf(event), event.locals.site, { tag: event.params.tag, reason });
			return { discarded: true };
		})
};
