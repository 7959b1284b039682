import { drillSessionPage } from '$lib/server/drill/trainer';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(() => drillSessionPage(contextOf(event), parse(clientId, event.params.id)));
