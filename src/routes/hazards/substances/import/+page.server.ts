import { z } from 'zod';
import { importSubstances, previewImport } from '$lib/server/hazards/substances';
import { may } from '$lib/server/kernel/permissions';
import { ticked } from '$lib/server/web/form-fields';
import { tableOf, SHOWN } from '$lib/server/web/table-actions';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({ mayEdit: may(contextOf(event).actor.role, 'edit substances') }));

export const actions: Actions = {
	preview: (event) =>
		action(async () => {
			const fields = await formBody(event.request);
			const preview = await previewImport(contextOf(event), await tableOf(fields));
			return {
				preview: {
					...preview,
					faultCount: preview.faults.length,
					faults: preview.faults.slice(0, SHOWN),
					addedCount: preview.added.length,
					added: preview.added.slice(0, SHOWN),
					replacedCount: preview.replaced.length,
					replaced: preview.replaced.slice(0, SHOWN)
				}
			};
		}),
	import: (event) =>
		action(async () => {
			const fields = await formBody(event.request);
			const { id, why, leaveOutBad } = parse(
				z.object({
					id: clientId,
					why: z.string().trim().min(1, 'Say where these values come from.').max(300),
					leaveOutBad: ticked
				}),
				fields
			);
			return importSubstances(contextOf(event), {
				id,
				file: await tableOf(fields),
				why,
				leaveOutBad: leaveOutBad === 'on'
			});
		})
};
