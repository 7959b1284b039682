import { z } from 'zod';
import { LOCATIONS } from '$core/air/cylinder';
import { may } from '$lib/server/context';
import { bringCylinder, listCylinders } from '$lib/server/cylinders';
import { PAGE_SIZE } from '$lib/server/items';
import { action, contextOf, formBody, page, parse } from '$lib/server/request';
import type { Actions, PageServerLoad } from './$types';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	at: z
		.enum([...LOCATIONS, 'set'])
		.optional()
		.catch(undefined),
	page: z.coerce.number().int().min(1).catch(1)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { q, at, page: number } = parse(query, Object.fromEntries(event.url.searchParams));
		const list = await listCylinders(context, event.locals.site, { text: q, location: at }, number);
		return {
			...list,
			...{ q, at: at ?? '', page: number, pages: Math.ceil(list.total / PAGE_SIZE) },
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const scanned = z.object({ tag: z.string('Scan a tag.').min(1, 'Scan a tag.') });

export const actions: Actions = {
	queue: (event) =>
		action(async () => {
			const { tag } = parse(scanned, await formBody(event.request));
			await bringCylinder(contextOf(event), event.locals.site, { tag, to: 'filling' });
		})
};
