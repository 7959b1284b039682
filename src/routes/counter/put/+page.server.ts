import { z } from 'zod';
import { BROUGHT_TO } from '$core/custody/answers';
import { bringItem } from '$lib/server/custody/bring-back';
import { listPlaces } from '$lib/server/hazards/plans';
import { requirePermission } from '$lib/server/kernel/permissions';
import { contextOf, formWrite, page, requested } from '$lib/server/web/request';
import { listTestHouses } from '$lib/server/site/test-houses';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'move things');
		const [places, testHouses] = await Promise.all([
			listPlaces(context.db),
			listTestHouses(context.db)
		]);
		return {
			places: places.map(({ id, name, kind, storage }) => ({ id, name, kind, storage })),
			houses: testHouses
		};
	});

const optionalId = z.uuid().or(z.literal('').transform(() => undefined));

export const actions: Actions = {
	bring: formWrite(
		z.object({
			...requested,
			tag: z.string().trim().min(1, 'Scan or type a tag.').max(40),
			to: z.enum(BROUGHT_TO, 'Choose where it goes.'),
			placeId: optionalId.optional(),
			testHouseId: optionalId.optional(),
			because: z.string().trim().max(300, 'At most 300 characters.').optional()
		}),
		(event: RequestEvent, form) => bringItem(contextOf(event), form)
	)
};
