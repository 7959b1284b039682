import { z } from 'zod';
import { DISCARD_REASONS } from '$core/filters/ledger';
import { addWear, discardPair, pairPage } from '$lib/server/filters/pairs';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await pairPage(context, event.params.tag);
		return {
			...found,
			ledger: { ...found.ledger, used: Number.isFinite(found.ledger.used) ? found.ledger.used : 1 },
			mayOpen: may(context.actor.role, 'open filters')
		};
	});

export const actions: Actions = {
	wear: formAction(
		z.object({
			id: clientId,
			planId: z.uuid('Choose the task it was worn for.'),
			wornOn: z.iso.date('Choose the day.'),
			minutes: z.coerce.number('Type the minutes of wear.')
		}),
		async (event: RequestEvent, form) => {
			return {
				worn: await addWear(contextOf(event), { ...form, tag: event.params.tag })
			};
		}
	),
	discard: formAction(
		z.object({ ...requested, reason: z.enum(DISCARD_REASONS, 'Say why it goes.') }),
		async (event: RequestEvent, input) => {
			await discardPair(contextOf(event), { ...input, tag: event.params.tag });
			return { discarded: true };
		}
	)
};
