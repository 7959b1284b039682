import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { tablesIn } from '$lib/server/site/so-far';
import { endSetUp } from '$lib/server/site/set-up';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor, site } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return { has: await tablesIn(db), ended: site.setUpAt !== null };
	});

const body = z.object({ ...requested, twoStep: z.literal('on').optional() });

export const actions: Actions = {
	default: formAction(body, async (event: RequestEvent, { requestId, twoStep }) => {
		await endSetUp(contextOf(event), requestId, twoStep === 'on');
		forgetVisit(event.request.headers);
		redirect(303, '/');
	})
};
