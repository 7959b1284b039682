import { redirect } from '@sveltejs/kit';
import { labelOfPair } from '$lib/server/filters/pairs';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** A pair stands under its label. */
export const GET = async (event) => {
	const tag = await page(() => labelOfPair(contextOf(event).db, parse(clientId, event.params.id)));
	redirect(303, `/filters/pairs/${tag}`);
};
