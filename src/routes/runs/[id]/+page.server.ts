import { may } from '$lib/server/context';
import { runPage } from '$lib/server/inspections';
import { itemPage } from '$lib/server/items';
import { clientId, contextOf, page, parse } from '$lib/server/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const found = await runPage(context, parse(clientId, event.params.id));
		const signed = found.run.signedAt
			? await itemPage(context, event.locals.site, found.item.tag)
			: null;
		return {
			...found,
			mayInspect: may(context.actor.role, 'inspect'),
			now: signed && {
				verdict: signed.verdict,
				defects: signed.defects,
				hasJob: signed.job !== null
			}
		};
	});
