import { buyAndFill } from '$lib/server/plan/forecast';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) => page(() => buyAndFill(contextOf(event)));
