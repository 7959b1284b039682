import { verifyPaper } from '$lib/server/records/verify';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const paper = (event.url.searchParams.get('paper') ?? '').slice(0, 100);
		return { paper, found: paper ? await verifyPaper(contextOf(event), paper) : null };
	});
