import { z } from 'zod';
import { countParts, lotsToCount } from '$lib/server/faults/parts';
import { requirePermission } from '$lib/server/kernel/permissions';
import { jsonText } from '$lib/server/web/form-fields';
import { clientId, contextOf, formAction, page, requested } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'keep the stores');
		return { lots: await lotsToCount(context.db) };
	});

const WRONG = 'Type whole numbers, 0 or more.';
const amount = z.number(WRONG).int(WRONG).min(0, WRONG).max(100_000, WRONG);

export const actions: Actions = {
	default: formAction(
		z.object({
			...requested,
			note: z.string().max(300).default(''),
			counts: jsonText(WRONG, 2_000_000).pipe(
				z.array(z.object({ lotId: clientId, seen: amount, counted: amount })).max(5000)
			)
		}),
		async (event: RequestEvent, input) => ({
			counted: input.counts.length,
			...(await countParts(contextOf(event), input))
		})
	)
};
