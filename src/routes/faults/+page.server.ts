import { z } from 'zod';
import { stationOf } from '$core/data/families';
import { rejectCode } from '$core/data/reject-codes';
import { faultsByStation, openDefects } from '$lib/server/faults/faults';
import { contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const query = z.object({
	q: z.string().trim().max(60).catch(''),
	family: z.string().max(40).nullish().catch(null)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const { q, family } = parse(query, Object.fromEntries(event.url.searchParams));
		const [open, byStation] = await Promise.all([openDefects(db), faultsByStation(db)]);
		const rows = open.map(({ defect, tag, place, family: of }) => ({
			id: defect.id,
			severity: defect.severity,
			tag,
			code: defect.code,
			station: stationOf(of, defect.station).name,
			what: rejectCode(defect.code).name,
			reports: defect.reports,
			place,
			reportedAt: defect.reportedAt
		}));
		const word = q.toLowerCase();
		return {
			q,
			total: rows.length,
			open: rows.filter(({ tag, code, station, what, place }) =>
				[tag, code, station, what, place].join(' ').toLowerCase().includes(word)
			),
			byStation,
			family: family ?? null
		};
	});
