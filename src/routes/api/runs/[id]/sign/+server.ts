import { z } from 'zod';
import { signRun } from '$lib/server/inspection/runs';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({ id: clientId });

/** Signs a finished inspection. */
export const POST = (event) =>
	api(async () => {
		const { id: requestId } = parse(body, await jsonBody(event.request));
		await signRun(contextOf(event), { requestId, runId: parse(clientId, event.params.id) });
		return { signed: true };
	});
