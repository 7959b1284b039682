import { history } from '$lib/server/records/history';
import { itemByTag } from '$lib/server/register/items';
import { sharedPage } from '$lib/server/web/shared-page';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const found = await itemByTag(context.db, event.params.tag);
		return {
			tag: found.item.tag,
			model: found.model.name,
			lines: await history(context, { itemId: found.item.id })
		};
	});
