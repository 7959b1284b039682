import { randomUUID } from 'node:crypto';
import { DEFAULT_FACTS } from '$core/hazards/facts';
import { may } from '$lib/server/context';
import { listPlaces, planPage } from '$lib/server/hazards';
import { clientId, contextOf, page, parse } from '$lib/server/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const places = await listPlaces(context.db);
		const mayPlan = may(context.actor.role, 'plan');
		if (event.params.id === 'new')
			return {
				mayPlan,
				places,
				plan: {
					id: randomUUID(),
					number: null,
					task: '',
					placeId: '',
					version: 0,
					facts: { ...DEFAULT_FACTS, ruleSet: event.locals.site.ruleSet, contaminants: [] },
					by: null
				}
			};
		const { plan, by } = await planPage(context.db, parse(clientId, event.params.id));
		return { mayPlan, places, plan: { ...plan, by } };
	});
