import { z } from 'zod';
import { accountList, makeAccount } from '$lib/server/access/account-changes';
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
			name: z.string().trim().min(1, 'Type a name.').max(80),
			initials: z.string().trim().min(1, 'Type initials.').max(4, 'Four letters at most.'),
			email: z.email('Type an address such as name@site.example.').max(200),
			role: z.enum(ROLES)
		}),
		async (event: RequestEvent, { requestId, ...given }) => {
			const { userId, token } = await makeAccount(contextOf(event), requestId, given);
			return { made: userId, link: `${event.locals.origin}/invite/${token}`, name: given.name };
		}
	)
};
