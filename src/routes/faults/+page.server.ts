import { faultsByStation, openDefects } from '$lib/server/faults/faults';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const [open, byStation] = await Promise.all([openDefects(db), faultsByStation(db)]);
		return {
			open: open.map(({ defect, ...row }) => ({ ...defect, ...row })),
			byStation,
			family: event.url.searchParams.get('family')
		};
	});
