import { redirect } from '@sveltejs/kit';
import { examPage } from '$lib/server/drill/sessions';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const found = await examPage(contextOf(event), parse(clientId, event.params.id));
		if (found.ended) redirect(303, `/drill/sessions/${found.ended}`);
		return { id: found.exam.id, procedure: found.procedure, handed: found.handed };
	});
