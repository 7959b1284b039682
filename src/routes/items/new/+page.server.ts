import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$lib/server/context';
import { listPlaces } from '$lib/server/hazards';
import { listModels } from '$lib/server/models';
import { addItem } from '$lib/server/register';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [models, places] = await Promise.all([listModels(context.db), listPlaces(context.db)]);
		return {
			mayKeep: may(context.actor.role, 'keep the register'),
			places: places.map(({ id, name }) => ({ id, name })),
			models: models
				.filter(({ model }) => !model.withdrawnOn)
				.map(({ model }) => ({ id: model.id, name: model.name, family: model.family }))
		};
	});

const body = z.object({
	id: clientId,
	tag: z.string().trim().min(1, 'Type or scan the tag.').max(40),
	modelId: z.uuid('Choose the model.'),
	placeId: z.uuid('Choose the place.'),
	size: z.string().trim().max(20),
	serial: z.string().trim().max(60)
});

export const actions: Actions = {
	default: async (event) => {
		const result = await action(async () => ({
			tag: await addItem(
				contextOf(event),
				event.locals.site,
				parse(body, await formBody(event.request))
			)
		}));
		if ('status' in result) return result;
		redirect(303, `/items/${result.tag}`);
	}
};
