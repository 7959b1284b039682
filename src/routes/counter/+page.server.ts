import { awayNow, byPerson } from '$lib/server/custody/where';
import { chooseFrom } from '$lib/server/handout/scan';
import { may, requirePermission } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'hand out');
		const [away, choices] = await Promise.all([
			awayNow(context.db, context.now()),
			chooseFrom(context.db)
		]);
		const dirty = away.filter(({ where }) => where === 'returned');
		return {
			...choices,
			out: byPerson(away),
			dirty: dirty.map(({ tag, family }) => ({ tag, family })),
			mayOverride: may(context.actor.role, 'hand out against the gate')
		};
	});
