import { cardOf } from '$lib/server/hazards/schedule-card';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		const { card, standing, valid, page: plan } = await cardOf(contextOf(event), id);
		return {
			card,
			standing,
			valid,
			ruleSet: plan.inForce.ruleSet,
			planId: id,
			number: plan.plan.number
		};
	});
