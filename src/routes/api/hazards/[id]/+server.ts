import { planSchema } from '$lib/server/hazards/plan-form';
import { savePlan } from '$lib/server/hazards/plans';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

/** Saves a plan; the id is made by the page, so that a retry saves once. */
export const PUT = (event) =>
	api(async () => {
		const input = parse(planSchema, await jsonBody(event.request));
		const id = parse(clientId, event.params.id);
		return { version: await savePlan(contextOf(event), { id, ...input }) };
	});
