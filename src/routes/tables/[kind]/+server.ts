import { z } from 'zod';
import { IMPORT_KINDS } from '$core/csv/kinds';
import { PAST_KINDS } from '$core/records/past-tables';
import { pastTemplate } from '$lib/server/records/take-in';
import { templateOf } from '$lib/server/register/tables';
import { csvFile } from '$lib/server/web/csv-file';
import { page, parse } from '$lib/server/web/request';

const says = 'There is no such table.';
const register = z.enum(IMPORT_KINDS, says);
const past = z.enum(PAST_KINDS, says);

/** An empty table of a kind, with a line that shows how it is filled in. */
export const GET = (event) =>
	page(async () => {
		const asked = past.safeParse(event.params.kind);
		const text = asked.success
			? pastTemplate(asked.data)
			: templateOf(parse(register, event.params.kind));
		return csvFile(`grevan-${event.params.kind}-template.csv`, text);
	});
