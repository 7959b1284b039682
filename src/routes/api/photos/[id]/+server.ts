import { photoJpeg } from '$lib/server/photos';
import { clientId, contextOf, page, parse } from '$lib/server/request';

/** A picture that was kept. It never changes. */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const jpeg = await photoJpeg(db, parse(clientId, event.params.id));
		return new Response(new Uint8Array(jpeg), { headers: { 'content-type': 'image/jpeg' } });
	});
