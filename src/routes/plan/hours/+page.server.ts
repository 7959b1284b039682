import { z } from 'zod';
import { listPlaces } from '$lib/server/hazards/plans';
import { may } from '$lib/server/kernel/permissions';
import { planFacts } from '$lib/server/plan/facts';
import { listFeeds, makeFeed, revokeFeed } from '$lib/server/plan/feeds';
import { listAccounts, setHours } from '$lib/server/plan/hours';
import {
	clientId,
	contextOf,
	formAction,
	formWrite,
	page,
	requested
} from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const [people, feeds, places, facts] = await Promise.all([
			listAccounts(context),
			listFeeds(context.db),
			listPlaces(context.db),
			planFacts(context, 0)
		]);
		return {
			people,
			feeds,
			places: places.map(({ id, name }) => ({ id, name })),
			barred: facts.barred,
			maySet: may(context.actor.role, 'keep working hours'),
			mayFeed: may(context.actor.role, 'keep the plan')
		};
	});

const minutes = z.coerce
	.number('Minutes of a day, 0 for none.')
	.int('Whole minutes.')
	.min(0, '0 or more.')
	.max(1440, 'A day has 1,440 minutes.');

export const actions: Actions = {
	hours: formWrite(
		z.object({
			...requested,
			userId: z.string().min(1).max(100),
			minutes: z.array(minutes).length(7).max(7)
		}),
		(event: RequestEvent, form) => setHours(contextOf(event), form)
	),
	make: formAction(
		z.object({
			...requested,
			of: z
				.string()
				.regex(/^(user|place):.+$/, 'Choose whose calendar it is.')
				.max(120)
		}),
		async (event: RequestEvent, { requestId, of }) => {
			const id = of.slice(of.indexOf(':') + 1);
			const token = await makeFeed(contextOf(event), {
				id: requestId,
				userId: of.startsWith('user:') ? id : null,
				placeId: of.startsWith('place:') ? id : null
			});
			return { made: `${event.locals.origin || event.url.origin}/calendar/${token}.ics` };
		}
	),
	revoke: formWrite(z.object({ ...requested, id: clientId }), (event: RequestEvent, form) =>
		revokeFeed(contextOf(event), form.requestId, form.id)
	)
};
