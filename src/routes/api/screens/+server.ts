import { z } from 'zod';
import { screenShows } from '$core/access/screen';
import { openScreen } from '$lib/server/access/screens';
import { codeSvg } from '$lib/server/web/codes';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({ id: clientId, shows: screenShows });

/** Opens a second screen: gives its code, and where a tablet goes with it. */
export const POST = (event) =>
	api(async () => {
		const { code } = await openScreen(contextOf(event), parse(body, await jsonBody(event.request)));
		const link = `${event.url.origin}/screen?code=${code}`;
		return { code, link, qr: codeSvg('qrcode', link) };
	});
