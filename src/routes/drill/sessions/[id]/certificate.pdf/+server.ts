import { examPdf } from '$lib/server/drill/exam-paper';
import { anchorNow } from '$lib/server/web/anchor';
import { pdfResponse } from '$lib/server/web/pdf';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** The paper of an exam as PDF. */
export const GET = (event) =>
	page(async () => {
		const context = contextOf(event);
		const id = parse(clientId, event.params.id);
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const { pdf, name } = await examPdf(context, id, anchor);
		return pdfResponse(pdf, name);
	});
