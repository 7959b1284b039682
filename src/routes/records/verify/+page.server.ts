import { Refusal } from '$lib/server/kernel/refusal';
import { verifyPaper } from '$lib/server/records/verify';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const paper = (event.url.searchParams.get('paper') ?? '').slice(0, 100);
		if (!paper) return { paper, found: null, refusal: null };
		try {
			return { paper, found: await verifyPaper(contextOf(event), paper), refusal: null };
		} catch (error) {
			// What cannot be read is said beside the field.
			if (error instanceof Refusal && error.kind === 'invalid')
				return { paper, found: null, refusal: error.message };
			throw error;
		}
	});
