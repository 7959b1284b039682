import { byPerson, whereEverything } from '$lib/server/custody/where';
import { contextOf, page } from '$lib/server/web/request';
import { requirePermission } from '$lib/server/kernel/permissions';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'hand out');
		const found = await whereEverything(context.db, context.now());
		const at = event.url.searchParams.get('at');
		return {
			...found,
			people: byPerson(found.away),
			at,
			shown: at === null ? found.away : found.away.filter(({ where }) => where === at)
		};
	});
