import { redirect } from '@sveltejs/kit';
import { may } from '$lib/server/kernel/permissions';
import { setUpStep } from '$lib/server/site/so-far';
import { today } from '$lib/server/today/shift-sheet';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { actor, site, db } = event.locals;
	// The set-up goes on where it was left, until it is ended.
	if (actor && !site.setUpAt && may(actor.role, 'keep the site'))
		redirect(303, await setUpStep(db, site));
	return page(() => today(contextOf(event)));
};
