import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { standsThere } from '$lib/server/access/pins';
import { nameAssistant } from '$lib/server/inspection/assistant';
import { runPage, startRun } from '$lib/server/inspection/runs';
import { may } from '$lib/server/kernel/permissions';
import { itemNow } from '$lib/server/register/item-page';
import { config } from '$lib/server/web/config';
import { doorContext, entranceOf } from '$lib/server/web/entrance';
import { clientId, contextOf, formAction, page, parse } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await runPage(context, parse(clientId, event.params.id));
		return {
			...found,
			hasBench: config().GREVAN_BA_BENCH !== undefined,
			mayInspect: may(context.actor.role, 'inspect'),
			now: found.run.signedAt ? await itemNow(context, found.item.id) : null
		};
	});

const supersede = z.object({
	id: clientId,
	reason: z.string().trim().max(300, 'At most 300 characters.')
});

const assist = z.object({
	id: clientId,
	who: z.string().trim().min(1, 'Scan your card, or type your initials.').max(40),
	pin: z.string().trim().min(1, 'Type your PIN.').max(20)
});

export const actions: Actions = {
	assist: formAction(assist, async (event: RequestEvent, { id, who, pin }) => {
		const context = contextOf(event);
		const { client } = entranceOf(event);
		const assistant = await standsThere(event.locals.auth, doorContext(event), client, {
			who,
			pin
		});
		await nameAssistant(context, { id, runId: parse(clientId, event.params.id), assistant });
		return { named: assistant.name };
	}),
	supersede: formAction(supersede, async (event: RequestEvent, { id, reason }) => {
		const context = contextOf(event);
		const { item, run } = await runPage(context, parse(clientId, event.params.id));
		const begun = await startRun(context, {
			id,
			tag: item.tag,
			supersede: { run: run.id, reason }
		});
		redirect(303, `/runs/${begun.id}`);
	})
};
