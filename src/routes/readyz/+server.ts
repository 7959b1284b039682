import { loadSite } from '$lib/server/kernel/site';

/** The process can serve: its database answers. */
export const GET = async ({ locals }) => {
	try {
		await loadSite(locals.db);
		return new Response('ready\n');
	} catch {
		return new Response('the database does not answer\n', { status: 503 });
	}
};
