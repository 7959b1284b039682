import { listPlans } from '$lib/server/hazards/plans';
import { may } from '$lib/server/kernel/permissions';
import { sharedPage } from '$lib/server/web/shared-page';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const plans = await listPlans(context);
		return {
			mayPlan: may(context.actor.role, 'plan'),
			plans: plans.map(({ plan, place, by, decision, status }) => ({
				id: plan.id,
				number: plan.number,
				task: plan.task,
				place,
				by,
				changedAt: plan.changedAt,
				version: plan.version,
				state: status.outcome,
				draftAhead: status.draftAhead,
				outcome: decision.outcome,
				required: decision.requiredFactor,
				first: decision.permitted[0]?.label ?? null,
				contaminants: plan.facts.contaminants.map((c) => c.name)
			}))
		};
	});
