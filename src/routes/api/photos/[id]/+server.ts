import { photoJpeg } from '$lib/server/inspection/photos';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';

/** A picture that was kept. It never changes. */
export const GET = (event) =>
	page(async () => {
		const { db } = contextOf(event);
		const jpeg = await photoJpeg(db, parse(clientId, event.params.id));
		return new Response(new Uint8Array(jpeg), { headers: { 'content-type': 'image/jpeg' } });
	});
