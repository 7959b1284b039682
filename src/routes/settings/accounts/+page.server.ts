import { z } from 'zod';
import { accountList, makeAccount } from '$lib/server/access/account-changes';
import { whose } from './fields';
import { requirePermission, ROLES } from '$lib/server/kernel/permissions';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		requirePermission(actor.role, 'keep accounts');
		return { accounts: await accountList(db), roles: ROLES };
	});

export const actions: Actions = {
	make: formAction(
		z.object({
			...requested,
			...whose,
			role: z.enum(ROLES)
		}),
		async (event: RequestEvent, { requestId, ...given }) => {
			const { userId, token } = await makeAccount(contextOf(event), requestId, given);
			return { made: userId, link: `${event.locals.origin}/invite/${token}`, name: given.name };
		}
	)
};
