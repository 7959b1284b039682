import { may } from '$lib/server/kernel/permissions';
import { importFilters, lastImports, previewStore } from '$lib/server/register/tables';
import { contextOf, page } from '$lib/server/web/request';
import { tableActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		return {
			mayKeep: may(actor.role, 'keep the stores'),
			last: await lastImports(db, 'filters')
		};
	});

export const actions: Actions = tableActions(
	(context, bytes) => previewStore(context, 'filters', bytes),
	importFilters
);
