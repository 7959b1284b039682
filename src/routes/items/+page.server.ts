import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { ITEM_STATES, PAGE_SIZE, register } from '$lib/server/items';
import { listPlaces } from '$lib/server/hazards';
import { contextOf, page } from '$lib/server/request';
import type { PageServerLoad } from './$types';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	state: z
		.enum(ITEM_STATES as [string, ...string[]])
		.or(z.literal(''))
		.catch(''),
	family: z.string().max(40).catch(''),
	place: z.uuid().or(z.literal('')).catch(''),
	page: z.coerce.number().int().min(1).max(100_000).catch(1)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const {
			q,
			state,
			place,
			family,
			page: number
		} = query.parse(Object.fromEntries(event.url.searchParams));
		const filter = {
			text: q || undefined,
			state: (state || undefined) as (typeof ITEM_STATES)[number] | undefined,
			placeId: place || undefined,
			family: family || undefined
		};
		const context = contextOf(event);
		const [found, places] = await Promise.all([
			register(context, event.locals.site, filter, number),
			listPlaces(context.db)
		]);
		return {
			...found,
			places: places.map(({ id, name }) => ({ id, name })),
			q,
			state,
			place,
			family,
			families: FAMILIES.map((f) => ({ key: f.family, plural: f.plural })),
			number,
			pages: Math.max(1, Math.ceil(found.total / PAGE_SIZE))
		};
	});
