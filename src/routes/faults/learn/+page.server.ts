import { z } from 'zod';
import { may } from '$lib/server/kernel/permissions';
import { FAILED_COSTS, learn } from '$lib/server/teach/learn';
import { lookIntoAlarm } from '$lib/server/teach/clusters';
import { clientId, contextOf, formWrite, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const query = z.object({
	family: z.string().max(40).nullish().catch(null),
	days: z.coerce.number().int().min(7).max(3660).catch(365),
	/** What a failure in service costs, in planned changes. */
	cost: z.coerce.number().min(1.1).max(1000).catch(FAILED_COSTS)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const asked = parse(query, Object.fromEntries(event.url.searchParams));
		return {
			...(await learn(context, { ...asked, family: asked.family ?? null })),
			days: asked.days,
			cost: asked.cost,
			mayLook: may(context.actor.role, 'repair')
		};
	});

export const actions: Actions = {
	look: formWrite(
		z.object({
			...requested,
			alarmId: clientId,
			found: z.string().trim().min(1, 'Say what was found.').max(300)
		}),
		(event: RequestEvent, form) => lookIntoAlarm(contextOf(event), form)
	)
};
