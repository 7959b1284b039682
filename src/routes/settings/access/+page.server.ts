import { z } from 'zod';
import { accessRules, saveAccessRules } from '$lib/server/access/rules';
import { requirePermission, ROLES } from '$lib/server/kernel/permissions';
import { contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		requirePermission(contextOf(event).actor.role, 'keep accounts');
		return { roles: ROLES };
	});

const on = z.literal('on').optional();
export const actions: Actions = {
	default: formAction(
		accessRules
			.omit({ twoPeople: true, twoStepRoles: true })
			.extend({ ...requested, twoPeople: on, roles: z.array(z.enum(ROLES)).max(4).default([]) }),
		async (event: RequestEvent, { requestId, twoPeople, roles, ...limits }) => {
			const rules = { ...limits, twoPeople: twoPeople === 'on', twoStepRoles: roles };
			await saveAccessRules(contextOf(event), { id: requestId, content: rules }, rules);
			return { done: true };
		}
	)
};
