import { listRigs } from '$lib/server/air/airlines';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({ rigs: await listRigs(contextOf(event)) }));
