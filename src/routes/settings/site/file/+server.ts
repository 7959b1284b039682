import { writeSettings } from '$lib/server/site/settings-file';
import { contextOf, page } from '$lib/server/web/request';

/** The settings of the site, to start another one with. */
export const GET = (event) =>
	page(
		async () =>
			new Response(`${JSON.stringify(await writeSettings(contextOf(event)), null, '\t')}\n`, {
				headers: {
					'content-type': 'application/json; charset=utf-8',
					'content-disposition': 'attachment; filename="grevan-settings.json"'
				}
			})
	);
