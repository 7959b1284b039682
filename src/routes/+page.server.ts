import { today } from '$lib/server/today/shift-sheet';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => page(() => today(contextOf(event)));
