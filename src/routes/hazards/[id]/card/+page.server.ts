import { clientId, contextOf, page, parse } from '$lib/server/request';
import { cardOf } from '$lib/server/schedule-card';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		const {
			card,
			standing,
			valid,
			page: plan
		} = await cardOf(contextOf(event), event.locals.site, id);
		return {
			card,
			standing,
			valid,
			ruleSet: plan.inForce.ruleSet,
			planId: id,
			number: plan.plan.number
		};
	});
