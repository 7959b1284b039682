import { requirePermission } from '$lib/server/kernel/permissions';
import { fitCounters } from '$lib/server/people/fit-counters';
import { openSessions, ratesHere, recentFitTests } from '$lib/server/people/fit-session';
import { config } from '$lib/server/web/config';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'see wearers');
		const [counters, open, rates, tests] = await Promise.all([
			fitCounters(db, config().GREVAN_FIT_COUNTER),
			openSessions(db),
			ratesHere(db),
			recentFitTests(db)
		]);
		return { counters, open, rates, tests };
	});
