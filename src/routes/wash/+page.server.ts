import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { CLEANERS } from '$core/care/batch';
import { beginBatch } from '$lib/server/care/batches';
import { washLine } from '$lib/server/care/line';
import { may } from '$lib/server/kernel/permissions';
import { wipeItem } from '$lib/server/custody/bring-back';
import { clientId, contextOf, formAction, formWrite, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return { ...(await washLine(context)), mayWash: may(context.actor.role, 'wash') };
	});

export const actions: Actions = {
	begin: formAction(
		z.object({ id: clientId, cleaner: z.enum(CLEANERS).default('neutral') }),
		async (event: RequestEvent, input) => {
			await beginBatch(contextOf(event), input);
			redirect(303, `/wash/${input.id}`);
		}
	),
	wipe: formWrite(
		z.object({ id: clientId, tag: z.string().trim().min(1, 'Scan or type a tag.').max(40) }),
		async (event: RequestEvent, input) => ({
			tag: input.tag,
			...(await wipeItem(contextOf(event), input))
		})
	)
};
