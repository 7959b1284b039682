import { signRun } from '$lib/server/inspections';
import { api, contextOf } from '$lib/server/request';

export const POST = (event) =>
	api(async () => {
		await signRun(contextOf(event), event.locals.site, event.params.id);
		return { signed: true };
	});
