import { itemFilter } from '../filter';
import { exportItems } from '$lib/server/register/register';
import { contextOf, page } from '$lib/server/web/request';

/** The register, or what the filter in the address finds of it, as CSV. */
export const GET = (event) =>
	page(async () => {
		const { filter } = itemFilter(event.url.searchParams);
		const csv = await exportItems(contextOf(event), filter);
		return new Response(csv, {
			headers: {
				'content-type': 'text/csv; charset=utf-8',
				'content-disposition': 'attachment; filename="register.csv"'
			}
		});
	});
