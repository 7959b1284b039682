import { Refusal } from '$lib/server/kernel/refusal';
import { PAPERS } from '$lib/server/papers/kinds';
import { paperPdf } from '$lib/server/papers/paper';
import { anchorNow } from '$lib/server/web/anchor';
import { pdfResponse } from '$lib/server/web/pdf';
import { contextOf, page, parse } from '$lib/server/web/request';

/** A paper of something in the record. */
export const GET = (event) =>
	page(async () => {
		const context = contextOf(event);
		const kind = Object.hasOwn(PAPERS, event.params.kind) ? PAPERS[event.params.kind] : undefined;
		if (!kind) throw new Refusal('not found', 'There is no paper of that kind.');
		const paper = await kind.of(context, parse(kind.id, event.params.id));
		// What leaves the house can be held against the log, whatever becomes of the database.
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const { pdf, name } = await paperPdf(context, paper, { anchor, origin: event.url.origin });
		return pdfResponse(pdf, name);
	});
