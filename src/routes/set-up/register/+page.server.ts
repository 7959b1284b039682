import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { missingHere } from '$lib/server/site/so-far';
import { endSetUp } from '$lib/server/site/set-up';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor, site } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return { missing: await missingHere(db, site), ended: site.setUpAt !== null };
	});

export const actions: Actions = {
	default: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		await endSetUp(contextOf(event), requestId);
		forgetVisit(event.request.headers);
		redirect(303, '/');
	})
};
