import { z } from 'zod';
import { api, contextOf } from '$lib/server/request';
import { searchSubstances } from '$lib/server/substances';

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
