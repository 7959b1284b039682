import { history } from '$lib/server/records/history';
import { itemByTag } from '$lib/server/register/items';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await itemByTag(context.db, event.params.tag);
		return {
			tag: found.item.tag,
			model: found.model.name,
			lines: await history(context, { itemId: found.item.id })
		};
	});
