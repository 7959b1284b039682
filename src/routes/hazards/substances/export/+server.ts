import { z } from 'zod';
import { exportSubstances } from '$lib/server/hazards/substances';
import { contextOf, page } from '$lib/server/web/request';

const which = z.enum(['own', 'all']).catch('all');

/** The library, or the site's own part of it, as CSV. */
export const GET = (event) =>
	page(async () => {
		const chosen = which.parse(event.url.searchParams.get('which'));
		const text = await exportSubstances(contextOf(event).db, chosen);
		return new Response(`\uFEFF${text}`, {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': `attachment; filename="substances-${chosen}.csv"`
			}
		});
	});
