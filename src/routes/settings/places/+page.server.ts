import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { closePlace, listPlaces, peopleFor } from '$lib/server/site/places';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import { placeAction } from '$lib/server/web/site-forms';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		const [places, people] = await Promise.all([listPlaces(db), peopleFor(db)]);
		return { places, people };
	});

export const actions: Actions = {
	place: placeAction,
	close: formAction(
		z.object({ ...requested, id: clientId }),
		async (event: RequestEvent, input) => {
			await closePlace(contextOf(event), input);
			return { closed: true };
		}
	)
};
