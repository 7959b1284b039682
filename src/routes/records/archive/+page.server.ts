import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({ mayTake: may(contextOf(event).actor.role, 'keep accounts') }));
