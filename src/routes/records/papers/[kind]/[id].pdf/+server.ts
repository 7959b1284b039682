import { pdfOf } from '$lib/server/papers/kinds';
import { anchorNow } from '$lib/server/web/anchor';
import { pdfResponse } from '$lib/server/web/pdf';
import { contextOf, page } from '$lib/server/web/request';

/** A paper of something in the record. */
export const GET = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { kind, id } = event.params;
		// What leaves the house can be held against the log, whatever becomes of the database.
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const { pdf, name } = await pdfOf(context, kind, id, { anchor, origin: event.url.origin });
		return pdfResponse(pdf, name);
	});
