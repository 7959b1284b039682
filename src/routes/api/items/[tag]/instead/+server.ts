import { readyInstead } from '$lib/server/inspection/seal-checks';
import { itemByTag } from '$lib/server/register/items';
import { api, contextOf } from '$lib/server/web/request';

/** What stands ready to be worn in place of a mask that did not seal. */
export const GET = (event) =>
	api(async () => {
		const context = contextOf(event);
		const { item, model, place } = await itemByTag(context.db, event.params.tag);
		return readyInstead(context, { ...item, model: model.name, place });
	});
