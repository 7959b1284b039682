import { redirect } from '@sveltejs/kit';
import { z } from 'zod';
import { may } from '$lib/server/kernel/permissions';
import { listWearers } from '$lib/server/people/wearers';
import { parse } from '$lib/server/web/request';
import { sharedPage } from '$lib/server/web/shared-page';
import type { PageServerLoad } from './$types';

const query = z.object({ q: z.string().trim().max(60).catch('') });

export const load: PageServerLoad = (event) =>
	sharedPage(event, async (context) => {
		// Whoever only wears sees themselves.
		if (!may(context.actor.role, 'see wearers')) redirect(303, '/people/me');
		const { q } = parse(query, Object.fromEntries(event.url.searchParams));
		return {
			q,
			wearers: await listWearers(context, q),
			mayKeep: may(context.actor.role, 'keep wearers')
		};
	});
