import { z } from 'zod';
import { addPhoto, photosOf } from '$lib/server/inspection/photos';
import { uploaded } from '$lib/server/web/form-fields';
import { api, clientId, contextOf, formBody, parse } from '$lib/server/web/request';

const body = z.object({ id: clientId, step: z.string().max(60) });

/** Takes in a picture at a step. */
export const POST = (event) =>
	api(async () => {
		const fields = await formBody(event.request);
		const given = parse(body, fields);
		const { bytes } = await uploaded(fields, 'Choose a picture.');
		await addPhoto(contextOf(event), { ...given, runId: event.params.id, bytes });
		return { photos: await photosOf(event.locals.db, event.params.id) };
	});
