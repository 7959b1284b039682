import { z } from 'zod';
import { airwayOf } from '$core/data/families';
import { closeMuster, exception, musterPage, present } from '$lib/server/inspection/musters';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await musterPage(context.db, parse(clientId, event.params.id));
		return {
			...found,
			kind: found.sheet.family ? airwayOf(found.sheet.family).plural : 'Everything',
			mayInspect: may(context.actor.role, 'inspect')
		};
	});

const tag = z.string().trim().min(1, 'Scan or type a tag.').max(40);

export const actions: Actions = {
	present: formAction(z.object({ id: clientId, tag }), async (event: RequestEvent, form) => {
		const musterId = parse(clientId, event.params.id);
		return { presented: await present(contextOf(event), { ...form, musterId }) };
	}),
	exception: formAction(
		z.object({
			...requested,
			tag,
			what: z
				.string()
				.regex(/^[a-z0-9-]+ [A-Z0-9]+$/, 'Choose what is wrong.')
				.transform((text) => text.split(' '))
		}),
		async (event: RequestEvent, form) => {
			const [step = '', code = ''] = form.what;
			const musterId = parse(clientId, event.params.id);
			const { requestId, tag: noted } = form;
			await exception(contextOf(event), { requestId, musterId, tag: noted, step, code });
			return { noted: form.tag };
		}
	),
	close: formAction(z.object(requested), async (event: RequestEvent, { requestId }) => {
		const musterId = parse(clientId, event.params.id);
		await closeMuster(contextOf(event), { requestId, musterId });
		return { closed: true };
	})
};
