import { z } from 'zod';
import { archiveSite } from '$lib/server/records/archive';
import { config } from '$lib/server/web/config';
import { zipFile } from '$lib/server/web/download';
import { clientId, contextOf, download, formBody, parse } from '$lib/server/web/request';

const asked = z.object({ id: clientId });

/** The whole site as one file. */
export const POST = (event) =>
	download(async () => {
		const { id } = parse(asked, await formBody(event.request));
		const { file, name } = await archiveSite(contextOf(event), id, config().DATABASE_URL);
		return zipFile(file, name);
	});
