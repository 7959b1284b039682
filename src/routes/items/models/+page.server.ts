import { may } from '$lib/server/kernel/permissions';
import { listModels } from '$lib/server/register/models';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			models: await listModels(context.db),
			mayEdit: may(context.actor.role, 'edit procedures')
		};
	});
