import { z } from 'zod';
import { DISCARD_REASONS } from '$core/filters/ledger';
import { may } from '$lib/server/context';
import { listLots, openPair, stockForPlan } from '$lib/server/filters';
import { listPlans } from '$lib/server/hazards';
import { action, clientId, contextOf, formBody, page, parse } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { Actions, PageServerLoad } from './$types';

const planId = z.uuid().nullable().catch(null);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const chosen = planId.parse(event.url.searchParams.get('plan'));
		const [plans, stock, lots] = await Promise.all([
			listPlans(context, site),
			chosen ? stockForPlan(context, site, chosen) : null,
			chosen ? [] : listLots(context.db)
		]);
		return {
			plans: plans.map(({ plan, place, decision }) => ({
				id: plan.id,
				number: plan.number,
				task: plan.task,
				place,
				outcome: decision.outcome
			})),
			stock,
			lots,
			chosen,
			asOf: dayAt(context.now(), site.timeZone),
			mayOpen: may(context.actor.role, 'open filters')
		};
	});

export const actions: Actions = {
	open: (event) =>
		action(async () => {
			const form = parse(
				z.object({
					id: clientId,
					lotId: z.uuid('Choose the filters first.'),
					planId: clientId,
					itemTag: z.string().trim().min(1, 'Scan or type the tag of the mask.').max(20),
					initials: z
						.string()
						.trim()
						.regex(/^\p{L}{1,4}$/u, 'Initials are one to four letters.'),
					discardReason: z.enum(['', ...DISCARD_REASONS]).default('')
				}),
				await formBody(event.request)
			);
			return {
				opened: {
					...(await openPair(contextOf(event), event.locals.site, form)),
					item: form.itemTag.toUpperCase()
				}
			};
		})
};
