import { z } from 'zod';
import { IMPORT_KINDS } from '$core/csv/kinds';
import { templateOf } from '$lib/server/register/tables';
import { csvFile } from '$lib/server/web/csv-file';
import { page, parse } from '$lib/server/web/request';

const kind = z.enum(IMPORT_KINDS, 'There is no such table.');

/** An empty table of a kind, with a line that shows how it is filled in. */
export const GET = (event) =>
	page(async () => {
		const of = parse(kind, event.params.kind);
		return csvFile(`grevan-${of}-template.csv`, templateOf(of));
	});
