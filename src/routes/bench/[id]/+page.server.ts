import { resumeTests, testPage } from '$lib/server/bench';
import { config } from '$lib/server/config';
import { clientId, contextOf, page, parse } from '$lib/server/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		await resumeTests(context.db, event.locals.site, config().GREVAN_PRESSURE_BENCH);
		const found = await testPage(context.db, parse(clientId, event.params.id));
		const { leaseBy: _, leaseUntil: __, ...test } = found.test;
		return { ...found, test };
	});
