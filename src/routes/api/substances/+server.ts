import { z } from 'zod';
import { searchSubstances } from '$lib/server/hazards/substances';
import { api, contextOf } from '$lib/server/web/request';

const text = z.string().max(120).catch('');

/** Substances that a word finds, with what the site says of them. */
export const GET = (event) =>
	api(async () => ({
		substances: await searchSubstances(
			contextOf(event).db,
			text.parse(event.url.searchParams.get('q')),
			30
		)
	}));
