import { writeTable } from '$core/csv/table';
import { type HistoryLine } from '$lib/server/records/history';
import { recordsFor } from '$lib/server/records/search';
import { csvFile } from '$lib/server/web/csv-file';
import { recordSearch } from '$lib/server/web/record-search';
import { contextOf, page } from '$lib/server/web/request';

const COLUMNS: { name: string; write: (line: HistoryLine) => string }[] = [
	{ name: 'entry', write: ({ seq }) => String(seq) },
	{ name: 'at', write: ({ at }) => at.toISOString() },
	{ name: 'who', write: ({ actor }) => actor },
	{ name: 'item', write: ({ tag }) => tag ?? '' },
	{ name: 'what', write: ({ says }) => says },
	{ name: 'reasons', write: ({ reasons }) => reasons.join(' ') },
	{ name: 'hash', write: ({ hash }) => hash }
];

/** What a search of the record finds, with its steps and hashes. */
export const GET = (event) =>
	page(async () => {
		const lines = await recordsFor(contextOf(event), recordSearch(event.url.searchParams));
		return csvFile('records.csv', `\uFEFF${writeTable(lines, COLUMNS)}`);
	});
