import { z } from 'zod';
import { airwayOf } from '$core/data/families';
import { rejectCode } from '$core/data/reject-codes';
import { whatFailsAt } from '$core/service/what-fails';
import { proceduresFor } from '$lib/server/inspection/procedures';
import { reportByHand, takeReportBack } from '$lib/server/faults/reports';
import { Refusal } from '$lib/server/kernel/refusal';
import { itemByTag } from '$lib/server/register/items';
import {
	clientId,
	contextOf,
	formAction,
	formWrite,
	page,
	parse,
	requested
} from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

const query = z.object({ tag: z.string().trim().max(60).catch('') });

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const { tag } = parse(query, Object.fromEntries(event.url.searchParams));
		if (!tag) return { asked: '', found: null, unknown: null };
		try {
			const { item, model, place } = await itemByTag(db, tag);
			const stations = whatFailsAt(item.family, await proceduresFor(db, item.family));
			return {
				asked: tag,
				unknown: item.retiredOn ? `${item.tag} is out of use for good.` : null,
				found: item.retiredOn
					? null
					: {
							tag: item.tag,
							family: item.family,
							size: item.size,
							model: model.name,
							place,
							airway: airwayOf(item.family).stations,
							stations: stations.map((station) => ({
								...station,
								codes: station.codes.map((code) => {
									const { name, severity } = rejectCode(code);
									return { code, name, severity };
								})
							}))
						}
			};
		} catch (error) {
			if (!(error instanceof Refusal)) throw error;
			return { asked: tag, found: null, unknown: error.message };
		}
	});

export const actions: Actions = {
	report: formAction(
		z.object({
			id: clientId,
			tag: z.string().trim().min(1).max(60),
			station: z.string().max(40),
			code: z.string().max(10),
			note: z.string().trim().max(500, 'A note has at most 500 characters.').default('')
		}),
		async (event: RequestEvent, form) => ({
			written: await reportByHand(contextOf(event), form)
		})
	),
	back: formWrite(
		z.object({ ...requested, reportId: clientId, why: z.string().trim().min(1).max(300) }),
		(event: RequestEvent, form) => takeReportBack(contextOf(event), form)
	)
};
