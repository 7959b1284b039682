import { z } from 'zod';
import { search } from '$lib/server/search/search';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const text = z.string().max(200).catch('');

export const load: PageServerLoad = (event) =>
	page(async () => {
		const asked = text.parse(event.url.searchParams.get('q') ?? '').trim();
		return { asked, ...(await search(contextOf(event), asked)) };
	});
