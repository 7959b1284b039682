import { z } from 'zod';
import { judgedBy, testPage } from '$lib/server/bench/tests';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
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
		const id = parse(clientId, event.params.id);
		const found = await testPage(context, id);
		const asked = other.safeParse(event.url.searchParams.get('by'));
		return {
			...found,
			recipes: found.recipes.map(({ key, name, version }) => ({ key, name, version })),
			judgedBy: asked.success
				? { ...asked.data, ...(await judgedBy(context.db, id, asked.data.key, asked.data.version)) }
				: null
		};
	});
