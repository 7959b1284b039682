import { z } from 'zod';
import { listLots, openPair, stockForPlan } from '$lib/server/filters/opening';
import { openedBy } from '$lib/server/filters/opened-by';
import { listPlans } from '$lib/server/hazards/plans';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, formAction } from '$lib/server/web/request';
import { sharedPage } from '$lib/server/web/shared-page';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const planId = z.uuid().nullable().catch(null);

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const chosen = planId.parse(event.url.searchParams.get('plan'));
		const [plans, stock, lots] = await Promise.all([
			listPlans(context),
			chosen ? stockForPlan(context, chosen) : null,
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
			asOf: todayOf(context),
			mayOpen: may(context.actor.role, 'open filters')
		};
	});

export const actions: Actions = {
	open: formAction(
		openedBy.extend({
			planId: clientId,
			itemTag: z.string().trim().min(1, 'Scan or type the tag of the mask.').max(20)
		}),
		async (event: RequestEvent, form) => {
			return {
				opened: {
					...(await openPair(contextOf(event), form)),
					item: form.itemTag.toUpperCase()
				}
			};
		}
	)
};
