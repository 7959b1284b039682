import { requirePermission } from '$lib/server/kernel/permissions';
import { history } from '$lib/server/records/history';
import { contextOf, page } from '$lib/server/web/request';
import { basicsAction, basicsPage } from '$lib/server/web/site-forms';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor, site } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return { ...basicsPage(site), lines: await history({ db }, { subject: 'site:1', limit: 12 }) };
	});

export const actions: Actions = { basics: basicsAction() };
