import { requirePermission } from '$lib/server/kernel/permissions';
import { listPlaces, peopleFor } from '$lib/server/site/places';
import { contextOf, page } from '$lib/server/web/request';
import { placeAction } from '$lib/server/web/site-forms';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		const [places, people] = await Promise.all([listPlaces(db), peopleFor(db)]);
		return { places, people };
	});

export const actions: Actions = { place: placeAction };
