import { may } from '$lib/server/kernel/permissions';
import { planPage } from '$lib/server/plan/plan';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const shown = await planPage(context);
		const sees = may(context.actor.role, 'see wearers');
		return {
			...shown,
			// What lapses of people is not for everybody to see.
			facts: sees
				? shown.facts
				: {
						...shown.facts,
						jobs: shown.facts.jobs.map((job) =>
							job.key.startsWith('person:') ? { ...job, tag: 'People', title: 'About a person' } : job
						)
					},
			mayChange: may(context.actor.role, 'keep the plan'),
			me: context.actor.id
		};
	});
