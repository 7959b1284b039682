import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { addSource, listSources } from '$lib/server/air-sources';
import { may } from '$lib/server/context';
import { decimal } from '$lib/server/form-fields';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			sources: await listSources(context, event.locals.site),
			mayAdd: may(context.actor.role, 'keep the register')
		};
	});

const FULL_BAR = 300;
const body = z.object({
	id: clientId,
	name: z.string().trim().max(60),
	kind: z.enum(['compressor', 'banks'], 'Choose what it is.'),
	oil: z.string().optional(),
	fills: z.string().optional(),
	banks: z
		.string()
		.trim()
		.transform((text) => (text ? text.split(/[;\s]+/) : []).map(decimal))
});

export const actions: Actions = {
	default: async (event) => {
		const result = await action(async () => {
			const { oil, fills, banks, ...input } = parse(body, await formBody(event.request));
			await addSource(contextOf(event), {
				...input,
				...{ oilLubricated: oil === 'on', fills: fills === 'on' },
				banks: banks.map((waterVolumeL) => ({ waterVolumeL, fullBar: FULL_BAR }))
			});
			return { id: input.id };
		});
		if ('status' in result) return result;
		redirect(303, `/air/tests/${result.id}`);
	}
};
