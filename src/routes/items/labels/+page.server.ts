import { labelsOf } from '$lib/server/register/register';
import { codeSvg } from '$lib/server/web/codes';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const tags = (event.url.searchParams.get('tags') ?? '').split(',').filter(Boolean);
		const found = await labelsOf(contextOf(event).db, tags);
		return {
			labels: found.map((label) => ({
				...label,
				qr: codeSvg('qrcode', label.tag),
				bar: codeSvg('code128', label.tag)
			})),
			missing: tags.filter((tag) => !found.some((label) => label.tag === tag))
		};
	});
