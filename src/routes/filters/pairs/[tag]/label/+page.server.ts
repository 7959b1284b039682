import { pairPage } from '$lib/server/filters/pairs';
import { codeSvg } from '$lib/server/web/codes';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const found = await pairPage(contextOf(event), event.params.tag);
		return {
			tag: found.tag,
			filters: found.pair.filters,
			openedOn: found.pair.openedOn,
			initials: found.pair.initials,
			changeOn: found.change.changeOn,
			changeAfterMin: found.pair.changeAfterMin,
			itemTag: found.itemTag,
			code: (event.locals.site.codeScheme === 'us' ? found.model.codeUs : found.model.codeEn) ?? '',
			model: found.model.name,
			lot: found.lot.lot,
			qr: codeSvg('qrcode', found.tag),
			bar: codeSvg('code128', found.tag)
		};
	});
