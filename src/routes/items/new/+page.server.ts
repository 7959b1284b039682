import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { listPlaces } from '$lib/server/hazards/plans';
import { may } from '$lib/server/kernel/permissions';
import { listModels } from '$lib/server/register/models';
import { addItem } from '$lib/server/register/register';
import { longForm } from '$lib/server/web/long-form';
import { clientId, contextOf, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [models, places] = await Promise.all([listModels(context.db), listPlaces(context.db)]);
		return {
			filled: form.filled({ tag: tag.parse(event.url.searchParams.get('tag') ?? '') }, 'new'),
			mayKeep: may(context.actor.role, 'keep the register'),
			places: places.map(({ id, name }) => ({ id, name })),
			models: models
				.filter(({ model }) => !model.withdrawnOn)
				.map(({ model }) => ({ id: model.id, name: model.name, family: model.family }))
		};
	});

/** The tag that was scanned and that nothing carries. */
const tag = z.string().max(40).catch('');

const form = longForm(
	z.object({
		...requested,
		id: clientId,
		tag: z.string().trim().min(1, 'Type or scan the tag.').max(40),
		modelId: z.uuid('Choose the model.'),
		placeId: z.uuid('Choose the place.'),
		size: z.string().trim().max(20),
		serial: z.string().trim().max(60)
	})
);

export const actions: Actions = {
	default: form.action(async (event: RequestEvent, input) => {
		const tag = await addItem(contextOf(event), input);
		redirect(303, `/items/${tag}`);
	})
};
