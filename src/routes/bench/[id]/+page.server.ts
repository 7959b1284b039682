import { z } from 'zod';
import { judgedBy, resumeTests, testPage } from '$lib/server/bench';
import { config } from '$lib/server/config';
import { clientId, contextOf, page, parse } from '$lib/server/request';
import type { PageServerLoad } from './$types';

/** Another recipe to judge the same readings by, such as suit-us@1. */
const other = z
	.string()
	.regex(/^[a-z-]{1,40}@\d{1,3}$/)
	.transform((text) => {
		const [key = '', version = ''] = text.split('@');
		return { key, version: Number(version) };
	});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		await resumeTests(context.db, event.locals.site, config().GREVAN_PRESSURE_BENCH);
		const id = parse(clientId, event.params.id);
		const found = await testPage(context.db, event.locals.site, id);
		const asked = other.safeParse(event.url.searchParams.get('by'));
		const { leaseBy: _, leaseUntil: __, ...test } = found.test;
		return {
			...found,
			test,
			recipes: found.recipes.map(({ key, name, version }) => ({ key, name, version })),
			judgedBy: asked.success
				? { ...asked.data, ...(await judgedBy(context.db, id, asked.data.key, asked.data.version)) }
				: null
		};
	});
