import { redirect } from '@sveltejs/kit';
import { requirePermission } from '$lib/server/kernel/permissions';
import { wearerForm } from '$lib/server/people/form';
import { choicesForWearer, saveWearer } from '$lib/server/people/wearers';
import { contextOf, formAction, page } from '$lib/server/web/request';
import type { Actions, PageServerLoad, RequestEvent } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		requirePermission(context.actor.role, 'keep wearers');
		return choicesForWearer(context.db);
	});

export const actions: Actions = {
	save: formAction(wearerForm, async (event: RequestEvent, input) => {
		await saveWearer(contextOf(event), input);
		redirect(303, `/people/${input.id}`);
	})
};
