import { z } from 'zod';
import { ITEM_STATES } from '$lib/server/register/items';
import { pageNumber } from '$lib/server/web/form-fields';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	state: z
		.enum(ITEM_STATES as [string, ...string[]])
		.or(z.literal(''))
		.catch(''),
	family: z.string().max(40).catch(''),
	place: z.uuid().or(z.literal('')).catch(''),
	sort: z
		.string()
		.regex(/^-?[a-z]{1,20}$/)
		.catch(''),
	page: pageNumber
});

/** What the address of the register asks for. */
export function itemFilter(params: URLSearchParams) {
	const asked = query.parse(Object.fromEntries(params));
	return {
		asked,
		filter: {
			text: asked.q || undefined,
			state: (asked.state || undefined) as (typeof ITEM_STATES)[number] | undefined,
			placeId: asked.place || undefined,
			family: asked.family || undefined,
			sort: asked.sort
		}
	};
}
