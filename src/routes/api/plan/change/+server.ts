import { askChangePlan } from '$lib/server/web/plan-requests';
import { api, contextOf, jsonBody } from '$lib/server/web/request';

export const POST = (event) =>
	api(async () => askChangePlan(contextOf(event), await jsonBody(event.request)));
