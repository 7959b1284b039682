import { may } from '$lib/server/kernel/permissions';
import { untilRecorded } from '$lib/server/kernel/until-recorded';
import { planPage } from '$lib/server/plan/plan';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			...(await untilRecorded(context, `plan ${context.actor.role}`, () => planPage(context))),
			mayChange: may(context.actor.role, 'keep the plan'),
			me: context.actor.id
		};
	});
