import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { startFromFile } from '$lib/server/site/settings-file';
import { uploaded } from '$lib/server/web/form-fields';
import { forgetVisit } from '$lib/server/web/visits';
import { action, contextOf, formBody, page, parse, requested } from '$lib/server/web/request';
import { basicsAction, basicsPage } from '$lib/server/web/site-forms';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { actor, site } = contextOf(event);
		requirePermission(actor.role, 'keep the site');
		return basicsPage(site);
	});

export const actions: Actions = {
	basics: basicsAction(() => redirect(303, '/set-up/places')),
	copy: (event) =>
		action(async () => {
			const fields = await formBody(event.request);
			const { requestId } = parse(z.object(requested), fields);
			const { bytes } = await uploaded(fields, 'Choose the file first.');
			await startFromFile(contextOf(event), { requestId, bytes });
			forgetVisit(event.request.headers);
			return { copied: true };
		})
};
