import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { may } from '$lib/server/context';
import { listPlaces } from '$lib/server/hazards';
import { recentMusters, startMuster } from '$lib/server/musters';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [musters, places] = await Promise.all([
			recentMusters(context.db),
			listPlaces(context.db)
		]);
		return {
			musters,
			places: places.map(({ id, name }) => ({ id, name })),
			families: FAMILIES.map((f) => ({ key: f.family, plural: f.plural })),
			mayStart: may(context.actor.role, 'inspect')
		};
	});

const orNull = <T extends z.ZodType>(schema: T) =>
	z
		.literal('')
		.transform(() => null)
		.or(schema);
const body = z.object({
	id: clientId,
	placeId: orNull(z.uuid()),
	family: orNull(z.enum(FAMILIES.map((f) => f.family) as [string, ...string[]]))
});

export const actions: Actions = {
	default: async (event) => {
		const result = await action(async () => {
			const input = parse(body, await formBody(event.request));
			await startMuster(contextOf(event), input);
			return { id: input.id };
		});
		if ('status' in result) return result;
		redirect(303, `/items/musters/${result.id}`);
	}
};
