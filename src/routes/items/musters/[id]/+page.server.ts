import { z } from 'zod';
import { airwayOf } from '$core/data/families';
import { may } from '$lib/server/context';
import { closeMuster, exception, musterPage, present } from '$lib/server/musters';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

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
	present: (event) =>
		action(async () => {
			const form = parse(z.object({ id: clientId, tag }), await formBody(event.request));
			const musterId = parse(clientId, event.params.id);
			return { presented: await present(contextOf(event), { ...form, musterId }) };
		}),
	exception: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					tag,
					what: z
						.string()
						.regex(/^[a-z0-9-]+ [A-Z0-9]+$/, 'Choose what is wrong.')
						.transform((text) => text.split(' '))
				}),
				await formBody(event.request)
			);
			const [step = '', code = ''] = form.what;
			const musterId = parse(clientId, event.params.id);
			await exception(contextOf(event), event.locals.site, { musterId, tag: form.tag, step, code });
			return { noted: form.tag };
		}),
	close: (event) =>
		action(async () => {
			await closeMuster(contextOf(event), parse(clientId, event.params.id));
			return { closed: true };
		})
};
