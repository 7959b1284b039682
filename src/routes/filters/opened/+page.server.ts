import { z } from 'zod';
import { openPairs } from '$lib/server/filters/opening';
import { todayOf } from '$lib/server/kernel/context';
import { pageNumber } from '$lib/server/web/form-fields';
import { sharedPage } from '$lib/server/web/shared-page';
import type { PageServerLoad } from './$types';

const asked = z.object({ page: pageNumber });
/** Days that count as this week. */
const WEEK = 7;

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const { site } = event.locals;
		const { page: number } = asked.parse(Object.fromEntries(event.url.searchParams));
		const { pairs, total, more, pages } = await openPairs(context, number);
		const shown = pairs.map(({ pair, model, itemTag, tag, change, used, recalled, daysLeft }) => ({
			id: pair.id,
			tag,
			itemTag,
			model: model.name,
			code: site.codeScheme === 'us' ? model.codeUs : model.codeEn,
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
			asOf: todayOf(context),
			total,
			more,
			pages,
			number,
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
