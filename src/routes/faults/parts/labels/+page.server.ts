import { z } from 'zod';
import { lotLabels } from '$lib/server/faults/parts';
import { codeSvg } from '$lib/server/web/codes';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

const query = z.object({
	lots: z
		.string()
		.max(200_000)
		.default('')
		.transform((text) => text.split(',').filter(Boolean))
		.pipe(z.array(clientId).max(5000))
});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { lots } = parse(query, Object.fromEntries(event.url.searchParams));
		const found = await lotLabels(contextOf(event).db, lots);
		return {
			labels: found.map((lot) => ({
				...lot,
				qr: codeSvg('qrcode', lot.lot),
				bar: codeSvg('code128', lot.lot)
			}))
		};
	});
