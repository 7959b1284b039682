import { z } from 'zod';
import { KEY_SCOPES } from '$core/access/keys';
import { keysOf, makeKey, revokeKey } from '$lib/server/access/keys';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		return { keys: await keysOf(db, actor.role === 'admin' ? null : actor.id) };
	});

export const actions: Actions = {
	make: formAction(
		z.object({
			...requested,
			name: z.string().trim().min(1, 'Say what program it is for.').max(60),
			scope: z.enum(KEY_SCOPES),
			days: z.coerce.number().int().min(1).max(730)
		}),
		async (event: RequestEvent, { requestId, ...given }) => ({
			made: await makeKey(contextOf(event), requestId, given)
		})
	),
	revoke: formAction(
		z.object({ ...requested, id: clientId }),
		async (event: RequestEvent, { requestId, id }) => {
			await revokeKey(contextOf(event), { id: requestId, content: ['revoke', id] }, id);
			return { revoked: true };
		}
	)
};
