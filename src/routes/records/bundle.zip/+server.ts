import { z } from 'zod';
import { bundle } from '$lib/server/papers/bundle';
import { anchorNow } from '$lib/server/web/anchor';
import { zipFile } from '$lib/server/web/download';
import { clientId, contextOf, download, formBody, parse } from '$lib/server/web/request';

const asked = z.object({
	id: clientId,
	from: z.iso.date('Type the first day.'),
	to: z.iso.date('Type the last day.')
});

/** The bundle of a period, sent while it is written. */
export const POST = (event) =>
	download(async () => {
		const context = contextOf(event);
		const wanted = parse(asked, await formBody(event.request));
		const anchor = await anchorNow(context.db, 'certificate', context.now());
		const { zip, name } = await bundle(context, wanted, { anchor, origin: event.url.origin });
		return zipFile(zip, name);
	});
