import { exportOf } from '$lib/server/people/own-data';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** Everything that is kept of one person, as JSON for them to have. */
export const GET = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		const kept = await exportOf(contextOf(event), id);
		return new Response(JSON.stringify(kept, null, '\t'), {
			headers: {
				'content-type': 'application/json',
				'content-disposition': `attachment; filename="wearer-${kept.wearer.number.replace(/[^\w-]/g, '_')}.json"`
			}
		});
	});
