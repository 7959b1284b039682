import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { addSource, listSources } from '$lib/server/air/sources';
import { may } from '$lib/server/kernel/permissions';
import { decimal, ticked } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			sources: await listSources(context),
			mayAdd: may(context.actor.role, 'keep the register')
		};
	});

const FULL_BAR = 300;
const body = z.object({
	id: clientId,
	name: z.string().trim().max(60),
	kind: z.enum(['compressor', 'banks'], 'Choose what it is.'),
	oil: ticked,
	fills: ticked,
	banks: z
		.string()
		.max(200)
		.trim()
		.transform((text) => (text ? text.split(/[;\s]+/) : []).map(decimal))
});

export const actions: Actions = {
	default: formAction(body, async (event: RequestEvent, { oil, fills, banks, ...input }) => {
		await addSource(contextOf(event), {
			...input,
			oilLubricated: oil === 'on',
			fills: fills === 'on',
			banks: banks.map((waterVolumeL) => ({ waterVolumeL, fullBar: FULL_BAR }))
		});
		redirect(303, `/air/tests/${input.id}`);
	})
};
