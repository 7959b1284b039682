import { z } from 'zod';
import { LOCATIONS } from '$core/air/cylinder';
import { listCylinders } from '$lib/server/air/cylinder-lists';
import { bringCylinder } from '$lib/server/air/cylinders';
import { may } from '$lib/server/kernel/permissions';
import { pagesOf } from '$lib/server/register/items';
import { pageNumber } from '$lib/server/web/form-fields';
import { contextOf, formAction, page, parse, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	at: z
		.enum([...LOCATIONS, 'set'])
		.optional()
		.catch(undefined),
	page: pageNumber
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { q, at, page: number } = parse(query, Object.fromEntries(event.url.searchParams));
		const list = await listCylinders(context, { text: q, location: at }, number);
		return {
			...list,
			q,
			at: at ?? '',
			page: number,
			pages: pagesOf(list.total),
			mayFill: may(context.actor.role, 'fill cylinders')
		};
	});

const scanned = z.object({
	...requested,
	tag: z.string('Scan a tag.').min(1, 'Scan a tag.').max(40)
});

export const actions: Actions = {
	queue: formAction(scanned, async (event: RequestEvent, input) => {
		await bringCylinder(contextOf(event), { ...input, to: 'filling' });
	})
};
