import { may } from '$lib/server/kernel/permissions';
import { planPage } from '$lib/server/plan/plan';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			...(await planPage(context)),
			mayChange: may(context.actor.role, 'keep the plan'),
			me: context.actor.id
		};
	});
