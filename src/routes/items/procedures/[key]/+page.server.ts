import { editionsOf } from '$lib/server/inspection/procedures';
import { may } from '$lib/server/kernel/permissions';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const editions = await editionsOf(context.db, event.params.key);
		const asked = Number(event.url.searchParams.get('version'));
		const shown = editions.find((e) => e.procedure.version === asked) ?? editions[0];
		return {
			procedure: shown?.procedure,
			shown: shown?.name ?? '',
			newest: shown === editions[0],
			editions: editions.map(({ procedure, ...about }) => ({
				...about,
				version: procedure.version
			})),
			mayEdit: may(context.actor.role, 'edit procedures')
		};
	});
