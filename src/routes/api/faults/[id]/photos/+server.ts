import { z } from 'zod';
import { addFaultPhoto, faultPhotos } from '$lib/server/faults/photos';
import { uploaded } from '$lib/server/web/form-fields';
import { api, clientId, contextOf, formBody, parse } from '$lib/server/web/request';

/** Takes in a picture of a fault. */
export const POST = (event) =>
	api(async () => {
		const fields = await formBody(event.request);
		const { id } = parse(z.object({ id: clientId }), fields);
		const { bytes } = await uploaded(fields, 'Choose a picture.');
		const defectId = parse(clientId, event.params.id);
		await addFaultPhoto(contextOf(event), { id, defectId, bytes });
		return { photos: await faultPhotos(event.locals.db, defectId) };
	});
