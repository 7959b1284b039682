import { trainerPage } from '$lib/server/drill/trainer';
import { requirePermission } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(() => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'keep competence');
		return trainerPage(context);
	});
