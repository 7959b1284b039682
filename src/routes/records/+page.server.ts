import { verifyChain } from '$lib/server/kernel/chain';
import { history } from '$lib/server/records/history';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const check = event.url.searchParams.has('check') ? await verifyChain(context.db) : null;
		return { lines: await history(context, { limit: 60 }), check };
	});
