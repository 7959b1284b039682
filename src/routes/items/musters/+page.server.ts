import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { FAMILIES } from '$core/data/families';
import { listPlaces } from '$lib/server/hazards/plans';
import { recentMusters, startMuster } from '$lib/server/inspection/musters';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

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
	default: formAction(body, async (event: RequestEvent, input) => {
		await startMuster(contextOf(event), input);
		redirect(303, `/items/musters/${input.id}`);
	})
};
