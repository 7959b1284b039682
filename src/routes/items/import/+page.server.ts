import { may } from '$lib/server/kernel/permissions';
import { importItems, previewItems } from '$lib/server/register/register';
import { lastImports } from '$lib/server/register/tables';
import { contextOf, page } from '$lib/server/web/request';
import { tableActions } from '$lib/server/web/table-actions';
import type { Actions, PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { db, actor } = contextOf(event);
		return {
			mayKeep: may(actor.role, 'keep the register'),
			last: await lastImports(db, 'items')
		};
	});

export const actions: Actions = tableActions(previewItems, importItems);
