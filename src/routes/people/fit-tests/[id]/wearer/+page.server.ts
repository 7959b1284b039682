import { sequenceOf } from '$core/fit/sequence';
import { sessionPage } from '$lib/server/people/fit-session';
import { clientId, contextOf, page, parse } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const { session, counted, wearer, readings, passed } = await sessionPage(
			contextOf(event),
			parse(clientId, event.params.id)
		);
		return {
			bare: true,
			id: session.id,
			name: wearer.name,
			open: session.endedAt === null && counted !== null,
			exercises: counted?.protocol.exercises ?? [],
			readings,
			steps: counted ? sequenceOf(counted.protocol) : [],
			passed
		};
	});
