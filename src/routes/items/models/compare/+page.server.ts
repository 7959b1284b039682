import { z } from 'zod';
import { Refusal } from '$lib/server/kernel/refusal';
import { compareModels } from '$lib/server/register/models';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const query = z.object({
	ids: z
		.string()
		.max(200)
		.default('')
		.transform((text) => text.split(',').filter(Boolean))
		.pipe(z.array(clientId).min(2, 'Tick two to four models.').max(4, 'Tick two to four models.'))
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { ids } = parse(query, Object.fromEntries(event.url.searchParams));
		const compared = await compareModels(contextOf(event).db, ids);
		if (compared.models.length < 2) throw new Refusal('not found', 'There are no such models.');
		return compared;
	});
