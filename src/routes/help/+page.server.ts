import { GUIDE } from '$lib/server/help/guide';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(() => {
		// Whoever is in may read it.
		contextOf(event);
		return Promise.resolve({ guide: GUIDE });
	});
