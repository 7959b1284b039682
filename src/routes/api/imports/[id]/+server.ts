import { progressOf, stopImport } from '$lib/server/register/progress';
import { api, clientId, contextOf, parse } from '$lib/server/web/request';

/** How far an import is; null before it says so, and when it has ended. */
export const GET = (event) =>
	api(async () => ({
		progress: await progressOf(contextOf(event), parse(clientId, event.params.id))
	}));

/** Stops an import that is under way: nothing of it is taken in. */
export const DELETE = (event) =>
	api(async () => ({
		stopped: await stopImport(contextOf(event), parse(clientId, event.params.id))
	}));
