import { z } from 'zod';
import { DISCARD_REASONS } from '$core/filters/ledger';
import { fitLayer, layersFor, layersOn, removeLayer } from '$lib/server/filters/layers';
import { addWear, discardPair, pairPage } from '$lib/server/filters/pairs';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await pairPage(context, event.params.tag);
		const { pair, model } = found;
		const [layers, layerLots] = await Promise.all([
			layersOn(context.db, pair.id),
			layersFor(context, model.mount, pair.filters)
		]);
		return {
			...found,
			layers,
			layerLots,
			ledger: { ...found.ledger, used: Number.isFinite(found.ledger.used) ? found.ledger.used : 1 },
			mayOpen: may(context.actor.role, 'open filters')
		};
	});

export const actions: Actions = {
	fit: formAction(
		z.object({ id: clientId, lotId: z.uuid('Choose what goes over them.') }),
		async (event: RequestEvent, form) => {
			await fitLayer(contextOf(event), { ...form, tag: event.params.tag ?? '' });
			return { fitted: true };
		}
	),
	takeOff: formAction(
		z.object({ ...requested, layerId: clientId }),
		async (event: RequestEvent, form) => {
			await removeLayer(contextOf(event), { ...form, tag: event.params.tag ?? '' });
			return { takenOff: true };
		}
	),
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
