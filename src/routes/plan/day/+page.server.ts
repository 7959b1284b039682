import { z } from 'zod';
import { planDay } from '$lib/server/plan/day';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const asked = z.object({
	day: z.iso.date().max(10).optional().catch(undefined),
	who: z.string().max(100).optional().catch(undefined)
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { day, who } = asked.parse(Object.fromEntries(event.url.searchParams));
		return planDay(contextOf(event), { ...(day ? { day } : {}), ...(who ? { who } : {}) });
	});
