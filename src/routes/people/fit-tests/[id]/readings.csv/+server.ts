import { readingsCsv } from '$lib/server/people/fit-session';
import { csvFile } from '$lib/server/web/csv-file';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** The raw readings of a fit test as CSV. */
export const GET = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		return csvFile('fit-test-readings.csv', await readingsCsv(contextOf(event), id));
	});
