import { traceCsv } from '$lib/server/bench/tests';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** The raw readings of a test. */
export const GET = (event) =>
	page(async () => {
		const text = await traceCsv(contextOf(event).db, parse(clientId, event.params.id));
		return new Response(text, {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': 'attachment; filename="trace.csv"'
			}
		});
	});
