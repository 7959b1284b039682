import { requirePermission } from '$lib/server/kernel/permissions';
import { wearersCsv } from '$lib/server/people/tables';
import { csvFile } from '$lib/server/web/csv-file';
import { contextOf, page } from '$lib/server/web/request';

/** The wearers as CSV. */
export const GET = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'see wearers');
		return csvFile('wearers.csv', await wearersCsv(db));
	});
