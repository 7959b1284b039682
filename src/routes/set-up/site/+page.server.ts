import { redirect } from '@sveltejs/kit';
import { requirePermission } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import { basicsAction, basicsPage } from '$lib/server/web/site-forms';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { actor, site } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return basicsPage(site);
	});

export const actions: Actions = {
	basics: basicsAction(() => redirect(303, '/set-up/places'))
};
