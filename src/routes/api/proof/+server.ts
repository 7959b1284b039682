import { z } from 'zod';
import { WAYS_IN } from '$core/access/session';
import { prove } from '$lib/server/access/pins';
import { Refusal } from '$lib/server/kernel/refusal';
import { api, contextOf, jsonBody, parse } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';

const body = z.object({ by: z.enum(WAYS_IN), secret: z.string().min(1, 'Type it.').max(200) });

/** Shows again that it is the person of this session, before a signature. */
export const POST = (event) =>
	api(async () => {
		const given = parse(body, await jsonBody(event.request));
		const { session } = event.locals;
		if (!session) throw new Refusal('forbidden', 'A program cannot show who it is.');
		await prove(event.locals.auth, contextOf(event), session.id, given);
		forgetVisit(event.request.headers);
		return { proven: true };
	});
