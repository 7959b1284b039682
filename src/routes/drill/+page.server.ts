import { drillHome } from '$lib/server/drill/trainer';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => page(() => drillHome(contextOf(event)));
