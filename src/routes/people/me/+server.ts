import { redirect } from '@sveltejs/kit';
import { wearerOf } from '$lib/server/people/wearers';
import { Refusal } from '$lib/server/kernel/refusal';
import { contextOf, page } from '$lib/server/web/request';

/** The own page of whoever is signed in and wears equipment. */
export const GET = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		const id = await wearerOf(db, actor.id);
		if (!id)
			throw new Refusal(
				'not found',
				'Your account is not linked to a wearer: a technician does so under People.'
			);
		redirect(303, `/people/${id}`);
	});
