import { plusDays, plusMonths } from '$core/plan/calendar';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const month = `${todayOf(context).slice(0, 7)}-01`;
		return {
			mayTake: may(context.actor.role, 'see wearers'),
			today: todayOf(context),
			// Who comes to audit asks for what is over.
			from: plusMonths(month, -1),
			to: plusDays(month, -1)
		};
	});
