import { listParts } from '$lib/server/faults/parts';
import { todayOf } from '$lib/server/kernel/context';
import { may } from '$lib/server/kernel/permissions';
import { importParts, lastImports, previewStore } from '$lib/server/register/tables';
import { contextOf, page } from '$lib/server/web/request';
import { tableActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		return {
			asOf: todayOf(context),
			parts: await listParts(context.db),
			last: await lastImports(context.db, 'parts'),
			mayKeep: may(context.actor.role, 'keep the filter store')
		};
	});

export const actions: Actions = tableActions(
	(context, bytes) => previewStore(context, 'parts', bytes),
	importParts
);
