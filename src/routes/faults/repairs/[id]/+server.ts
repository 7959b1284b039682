import { redirect } from '@sveltejs/kit';
import { faultOfJob } from '$lib/server/faults/jobs';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** A repair stands on the page of the fault that it mends. */
export const GET = async (event) => {
	const id = await page(() => faultOfJob(contextOf(event).db, parse(clientId, event.params.id)));
	redirect(303, `/faults/${id}`);
};
