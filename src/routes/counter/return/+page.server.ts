import { may, requirePermission } from '$lib/server/kernel/permissions';
import { lastReturns } from '$lib/server/custody/returns';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const SHOWN = 12;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'move things');
		return {
			last: await lastReturns(context.db, SHOWN),
			mayWash: may(context.actor.role, 'wash')
		};
	});
