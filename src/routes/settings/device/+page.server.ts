import { z } from 'zod';
import { deviceOf } from '$lib/server/access/devices';
import { shareDevice } from '$lib/server/access/own-account';
import { Refusal } from '$lib/server/kernel/refusal';
import { entranceOf } from '$lib/server/web/entrance';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import { forgetVisit } from '$lib/server/web/visits';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const found = await deviceOf(db, entranceOf(event).deviceKey);
		return {
			device: found ? { shared: found.shared, name: found.name, until: found.trustedUntil } : null
		};
	});

export const actions: Actions = {
	share: formAction(
		z.object({
			...requested,
			name: z.string().trim().max(60),
			shared: z.literal('on').optional()
		}),
		async (event: RequestEvent, { requestId, name, shared }) => {
			const context = contextOf(event);
			const { session } = event.locals;
			const found = await deviceOf(context.db, entranceOf(event).deviceKey);
			if (!found || !session)
				throw new Refusal('forbidden', 'Sign out, then in again with your password, first.');
			await shareDevice(
				context,
				{ id: requestId, content: ['share', name, shared] },
				{ deviceId: found.id, sessionId: session.id, shared: shared === 'on', name }
			);
			forgetVisit(event.request.headers);
			return { done: true };
		}
	)
};
