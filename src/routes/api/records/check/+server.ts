import { checkLog } from '$lib/server/web/chain-check';
import { api, clientId, contextOf, parse } from '$lib/server/web/request';

/** Checks the log and the records that it tells of. */
export const GET = (event) =>
	api(() => checkLog(contextOf(event), parse(clientId, event.url.searchParams.get('id'))));
