import { may } from '$lib/server/kernel/permissions';
import { importWearers, previewWearers } from '$lib/server/people/tables';
import { lastImports } from '$lib/server/register/tables';
import { contextOf, page } from '$lib/server/web/request';
import { tableActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		return {
			mayKeep: may(actor.role, 'keep wearers'),
			last: await lastImports(db, 'wearers')
		};
	});

export const actions: Actions = tableActions(previewWearers, importWearers);
