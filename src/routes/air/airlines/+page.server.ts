import { listRigs } from '$lib/server/airlines';
import { contextOf, page } from '$lib/server/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({ rigs: await listRigs(contextOf(event), event.locals.site) }));
