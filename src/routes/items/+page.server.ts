import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { may } from '$lib/server/context';
import { listPlaces } from '$lib/server/hazards';
import { PAGE_SIZE, register } from '$lib/server/items';
import { moveItems } from '$lib/server/register';
import { action, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';
import { itemFilter } from './filter';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { asked, filter } = itemFilter(event.url.searchParams);
		const { page: number, ...words } = asked;
		const context = contextOf(event);
		const [found, places] = await Promise.all([
			register(context, event.locals.site, filter, number),
			listPlaces(context.db)
		]);
		return {
			...found,
			...words,
			places: places.map(({ id, name }) => ({ id, name })),
			families: FAMILIES.map((f) => ({ key: f.family, plural: f.plural })),
			mayKeep: may(context.actor.role, 'keep the register'),
			number,
			pages: Math.max(1, Math.ceil(found.total / PAGE_SIZE))
		};
	});

const move = z.object({
	tags: z.array(z.string().max(20)).default([]),
	placeId: z.uuid('Choose where they go.')
});

export const actions: Actions = {
	move: (event) =>
		action(async () => moveItems(contextOf(event), parse(move, await formBody(event.request))))
};
