import { itemFilter } from '../filter';
import { exportItems } from '$lib/server/register/register';
import { csvFile } from '$lib/server/web/csv-file';
import { contextOf, page } from '$lib/server/web/request';

/** The register, or what the filter in the address finds of it, as CSV. */
export const GET = (event) =>
	page(async () => {
		const { filter } = itemFilter(event.url.searchParams);
		return csvFile('register.csv', await exportItems(contextOf(event), filter));
	});
