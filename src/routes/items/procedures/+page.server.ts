import { procedureList, versionName } from '$lib/server/inspection/procedures';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => ({
		procedures: (await procedureList(contextOf(event).db)).map((p) => ({
			key: p.key,
			name: p.name,
			family: p.family,
			steps: p.steps.length,
			donning: p.purpose === 'donning',
			version: versionName(p.version)
		}))
	}));
