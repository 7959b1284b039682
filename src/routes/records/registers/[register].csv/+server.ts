import { registerCsv, registerNamed } from '$lib/server/records/registers';
import { csvFile } from '$lib/server/web/csv-file';
import { periodOf } from '$lib/server/web/record-search';
import { contextOf, page } from '$lib/server/web/request';

/** A register as CSV, of a period where it has one. */
export const GET = (event) =>
	page(async () => {
		const key = registerNamed(event.params.register);
		const csv = await registerCsv(contextOf(event), key, periodOf(event.url.searchParams));
		return csvFile(`${key}.csv`, csv);
	});
