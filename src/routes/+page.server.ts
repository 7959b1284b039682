import { today } from '$lib/server/agenda';
import { contextOf, page } from '$lib/server/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(() => today(contextOf(event), event.locals.site));
