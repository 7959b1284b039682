import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { listPlaces } from '$lib/server/hazards/plans';
import { USE_PATTERNS } from '$core/site/places';
import { may } from '$lib/server/kernel/permissions';
import { pagesOf, register } from '$lib/server/register/items';
import { MOST_AT_ONCE, moveItems, setUse } from '$lib/server/register/register';
import { contextOf, formAction, requested } from '$lib/server/web/request';
import { sharedPage } from '$lib/server/web/shared-page';
import type { Actions, PageServerLoad, RequestEvent } from './$types';
import { itemFilter } from './filter';

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const { asked, filter } = itemFilter(event.url.searchParams);
		const { page: number, ...words } = asked;
		const [found, places] = await Promise.all([
			register(context, filter, number),
			listPlaces(context.db)
		]);
		return {
			...found,
			...words,
			places: places.map(({ id, name }) => ({ id, name })),
			families: FAMILIES.map((f) => ({ key: f.family, plural: f.plural })),
			mayKeep: may(context.actor.role, 'keep the register'),
			number,
			pages: pagesOf(found.total)
		};
	});

const chosen = z.object({
	...requested,
	tags: z
		.array(z.string().max(20))
		.max(MOST_AT_ONCE, `At most ${MOST_AT_ONCE} at once.`)
		.default([])
});

export const actions: Actions = {
	move: formAction(
		chosen.extend({ placeId: z.uuid('Choose where they go.') }),
		(event: RequestEvent, input) => moveItems(contextOf(event), input)
	),
	use: formAction(
		chosen.extend({ usePattern: z.enum(USE_PATTERNS, 'Choose whose they are.') }),
		(event: RequestEvent, input) => setUse(contextOf(event), input)
	)
};
