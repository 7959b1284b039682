import { openPairs } from '$lib/server/filters';
import { contextOf, page } from '$lib/server/request';
import { dayAt } from '$lib/server/site';
import type { PageServerLoad } from './$types';

/** Days that count as this week. */
const WEEK = 7;

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { site } = event.locals;
		const pairs = await openPairs(context, site);
		const shown = pairs.map(({ pair, model, itemTag, tag, change, used, recalled, daysLeft }) => ({
			id: pair.id,
			tag,
			itemTag,
			model: model.name,
			code: site.ruleSet === 'us' ? model.codeUs : model.codeEn,
			openedOn: pair.openedOn,
			changeOn: change.changeOn,
			why: change.reasons[0]?.text ?? '',
			changeAfterMin: pair.changeAfterMin,
			used: Number.isFinite(used) ? used : 1,
			recalled,
			daysLeft
		}));
		const due = (row: (typeof shown)[number]) => row.recalled || row.daysLeft < 0;
		return {
			asOf: dayAt(context.now(), site.timeZone),
			groups: [
				{ key: 'over', title: 'Change before anyone wears them', rows: shown.filter(due) },
				{
					key: 'today',
					title: 'Last day today',
					rows: shown.filter((row) => !due(row) && row.daysLeft === 0)
				},
				{
					key: 'week',
					title: 'This week',
					rows: shown.filter((row) => !due(row) && row.daysLeft > 0 && row.daysLeft <= WEEK)
				},
				{
					key: 'later',
					title: 'Later',
					rows: shown.filter((row) => !due(row) && row.daysLeft > WEEK)
				}
			]
		};
	});
