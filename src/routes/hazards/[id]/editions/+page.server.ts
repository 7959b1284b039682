import { planDifference } from '$core/hazards/difference';
import { planPage } from '$lib/server/hazards/plans';
import { may } from '$lib/server/kernel/permissions';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const id = parse(clientId, event.params.id);
		const context = contextOf(event);
		const found = await planPage(context, id);
		const draft = {
			edition: null,
			task: found.plan.task,
			place: found.place,
			facts: found.plan.facts,
			by: found.by,
			at: found.plan.changedAt,
			note: '',
			outcome: null as string | null
		};
		const editions = found.editions.map(({ edition, by }) => ({
			edition: edition.edition as number | null,
			task: edition.task,
			place: edition.place,
			facts: edition.facts,
			by,
			at: edition.approvedAt,
			note: edition.note,
			outcome: edition.outcome as string | null
		}));
		const all = found.status.draftAhead || editions.length === 0 ? [draft, ...editions] : editions;
		return {
			maySeeWearers: may(context.actor.role, 'see wearers'),
			plan: { id, task: found.plan.task, number: found.plan.number, place: found.place },
			versions: all.map((version, i) => {
				const before = all[i + 1];
				const { facts, ...shown } = version;
				return {
					...shown,
					contaminants: facts.contaminants.length,
					changes: before ? planDifference(before, version) : null
				};
			}),
			flags: found.flags.map(({ flag, by }) => ({
				id: flag.id,
				text: flag.text,
				by,
				at: flag.raisedAt,
				clearedAt: flag.clearedAt,
				clearedWhy: flag.clearedWhy
			}))
		};
	});
