import { z } from 'zod';
import { plan } from '$lib/server/today/shift-sheet';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const horizon = z.coerce.number().int().min(1).max(90).catch(30);

export const load: PageServerLoad = (event) =>
	page(async () => {
		const days = horizon.parse(event.url.searchParams.get('days') ?? undefined);
		return { ...(await plan(contextOf(event), days)), horizon: days };
	});
