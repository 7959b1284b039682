import { sheets } from '$lib/server/inspection/paper';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(() => {
		const { searchParams } = event.url;
		const tags = (searchParams.get('tags') ?? '').split(',').filter(Boolean).slice(0, 100);
		return sheets(contextOf(event), searchParams.get('procedure'), tags);
	});
