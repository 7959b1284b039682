import { certificatePdf } from '$lib/server/people/certificate';
import { anchorNow } from '$lib/server/web/anchor';
import { pdfResponse } from '$lib/server/web/pdf';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** The certificate of a signed fit test as PDF. */
export const GET = (event) =>
	page(async () => {
		const context = contextOf(event);
		const id = parse(clientId, event.params.id);
		// What leaves the house can be held against the log, whatever becomes of the database.
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const { pdf, name } = await certificatePdf(context, id, anchor);
		return pdfResponse(pdf, name);
	});
