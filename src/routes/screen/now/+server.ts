import { shownOn } from '$lib/server/access/screens';
import { api } from '$lib/server/web/request';
import { SCREEN_COOKIE } from '$lib/server/web/screen-cookie';

/** What the second screen shows now; null: it is dark. */
export const GET = ({ locals, cookies, setHeaders }) =>
	api(async () => {
		setHeaders({ 'cache-control': 'no-store' });
		return {
			now: new Date().toISOString(),
			shows: await shownOn(locals.db, cookies.get(SCREEN_COOKIE), new Date())
		};
	});
