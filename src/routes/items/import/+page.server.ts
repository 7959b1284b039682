import { z } from 'zod';
import { may } from '$lib/server/kernel/permissions';
import { importItems, previewItems } from '$lib/server/register/register';
import { uploaded, ticked } from '$lib/server/web/form-fields';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad } from './$types';

/** Faults shown at most; their number is always said. */
const SHOWN = 200;

export const load: PageServerLoad = (event) =>
	page(async () => ({ mayKeep: may(contextOf(event).actor.role, 'keep the register') }));

const bytesOf = async (fields: Record<string, unknown>) =>
	(await uploaded(fields, 'Choose a CSV file first.')).bytes;

export const actions: Actions = {
	preview: (event) =>
		action(async () => {
			const bytes = await bytesOf(await formBody(event.request));
			const preview = await previewItems(contextOf(event), bytes);
			return {
				preview: {
					...preview,
					faultCount: preview.faults.length,
					faults: preview.faults.slice(0, SHOWN)
				}
			};
		}),
	import: (event) =>
		action(async () => {
			const fields = await formBody(event.request);
			const { id, leaveOutBad } = parse(z.object({ id: clientId, leaveOutBad: ticked }), fields);
			return importItems(contextOf(event), {
				id,
				bytes: await bytesOf(fields),
				leaveOutBad: leaveOutBad === 'on'
			});
		})
};
