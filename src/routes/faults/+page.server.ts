import { z } from 'zod';
import { stationOf } from '$core/data/families';
import { rejectCode } from '$core/data/reject-codes';
import { FAULT_END_WORDS, FAULT_ENDS } from '$core/service/ends';
import { plusDays } from '$core/plan/calendar';
import { faultsByStation } from '$lib/server/faults/faults';
import { faultList } from '$lib/server/faults/list';
import { todayOf } from '$lib/server/kernel/context';
import { listPlaces } from '$lib/server/hazards/plans';
import { parse } from '$lib/server/web/request';
import { sharedPage } from '$lib/server/web/shared-page';
import type { PageServerLoad } from './$types';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	of: z.enum(['open', 'ended']).catch('open'),
	family: z.string().max(40).nullish().catch(null),
	place: z.uuid().nullish().catch(null),
	how: z.enum(FAULT_ENDS).nullish().catch(null),
	station: z.string().max(40).nullish().catch(null),
	/** Reported in so many days. */
	days: z.coerce.number().int().min(1).max(3660).nullish().catch(null),
	page: z.coerce.number().int().min(1).max(100_000).catch(1)
});

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		const { db } = context;
		const asked = parse(query, Object.fromEntries(event.url.searchParams));
		const since = asked.days
			? new Date(`${plusDays(todayOf(context), -asked.days)}T00:00:00Z`)
			: null;
		const [found, byStation, places] = await Promise.all([
			faultList(db, { ...asked, placeId: asked.place ?? null, since }),
			faultsByStation(db),
			listPlaces(db)
		]);
		return {
			...asked,
			family: asked.family ?? null,
			total: found.total,
			page: found.page,
			pages: found.pages,
			rows: found.rows.map(({ defect, reports, tag, place, family: of }) => ({
				id: defect.id,
				severity: defect.severity,
				tag,
				code: defect.code,
				station: stationOf(of, defect.station).name,
				what: rejectCode(defect.code).name,
				reports,
				place,
				reportedAt: defect.reportedAt,
				closedAt: defect.closedAt,
				ended: defect.closedHow
					? `${FAULT_END_WORDS[defect.closedHow]}${defect.closedWhy ? `: ${defect.closedWhy}` : ''}`
					: ''
			})),
			byStation,
			places: places.map(({ id, name }) => ({ id, name }))
		};
	});
