import { z } from 'zod';
import { screenShows } from '$core/access/screen';
import { darkenScreen, showScreen } from '$lib/server/access/screens';
import { api, clientId, contextOf, jsonBody, parse } from '$lib/server/web/request';

const body = z.object({ shows: screenShows });

/** Shows what is done now. */
export const PUT = (event) =>
	api(async () => {
		const { shows } = parse(body, await jsonBody(event.request));
		return showScreen(contextOf(event), parse(clientId, event.params.id), shows);
	});

/** Takes the screen away. */
export const DELETE = (event) =>
	api(async () => {
		await darkenScreen(contextOf(event), parse(clientId, event.params.id));
		return {};
	});
