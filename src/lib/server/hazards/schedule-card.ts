import { scheduleCard } from '../../../core/filters/schedule.ts';
import { shownLife } from '../../../core/hazards/shown-kind.ts';
import { readable } from '../../../core/plan/calendar.ts';
import type { Context } from '../kernel/context.ts';
import { planPage } from './plans.ts';

/** The change schedule of a plan in force, for the wall. */
export async function cardOf(context: Context, planId: string) {
	const page = await planPage(context, planId);
	const { decision, inForce } = page;
	const life = shownLife(decision, inForce);
	const newest = page.editions[0];
	return {
		page,
		card: scheduleCard(page.plan.task, page.place, inForce, decision, life),
		standing: newest
			? `Edition ${newest.edition.edition}, approved by ${newest.by}, holds until ${readable(newest.edition.expiresOn)}`
			: 'Draft: not approved',
		valid: page.status.outcome === 'in force' || page.status.outcome === 'review due'
	};
}
