import { keptCounter } from '$lib/server/handout/kept';
import { api, contextOf } from '$lib/server/web/request';

/** What a device keeps of the counter, to go on without a connection. */
export const GET = (event) => api(async () => keptCounter(contextOf(event)));
