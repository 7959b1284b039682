import { consumptions } from '$lib/server/air/uses';
import { entryLog } from '$lib/server/air/entry-log';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const [entries, known] = await Promise.all([entryLog(db, 40), consumptions(db)]);
		return {
			entries,
			known: [...known]
				.map(([wearer, figures]) => ({ wearer, ...figures }))
				.sort((a, b) => a.wearer.localeCompare(b.wearer))
		};
	});
