import { z } from 'zod';
import { requirePermission } from '$lib/server/kernel/permissions';
import { saveSite, siteSchools } from '$lib/server/site/settings';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		requirePermission(contextOf(event).actor.role, 'keep the site');
		return {};
	});

export const actions: Actions = {
	default: formAction(
		siteSchools.extend({ ...requested, version: z.coerce.number().int().min(0) }),
		async (event: RequestEvent, { requestId, version, ...choices }) => {
			await saveSite(contextOf(event), { requestId, version, choices });
			forgetVisit(event.request.headers);
			return { kept: true };
		}
	)
};
