import { loadSite } from '$lib/server/kernel/site';
import { readFeed } from '$lib/server/plan/feeds';

/** What opens nothing is asked for again no sooner, s; a client that does not know asks every minute. */
const COME_AGAIN_S = 86_400;

/** A calendar by its token; what was revoked and what never was are told alike. */
export const GET = async ({ params, locals, url }) => {
	const text = await readFeed(
		{ db: locals.db, now: () => new Date(), site: await loadSite(locals.db) },
		params.token,
		locals.origin || url.origin
	);
	return text === null
		? new Response('This calendar is not there any more.\n', {
				status: 404,
				headers: { 'retry-after': String(COME_AGAIN_S), 'cache-control': 'no-store' }
			})
		: new Response(text, {
				headers: {
					'content-type': 'text/calendar; charset=utf-8',
					'cache-control': 'private, max-age=600'
				}
			});
};
