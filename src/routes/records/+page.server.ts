import { untilRecorded } from '$lib/server/kernel/until-recorded';
import { lastBackup } from '$lib/server/records/backups';
import { searchRecords } from '$lib/server/records/search';
import { recordSearch } from '$lib/server/web/record-search';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { searchParams } = event.url;
		const asked = new URLSearchParams([...searchParams].filter(([name]) => name !== 'check'));
		const search = recordSearch(asked);
		const [found, backup] = await Promise.all([
			untilRecorded(context, `records ${context.actor.role} ${asked}`, () =>
				searchRecords(context, search)
			),
			lastBackup(context.db)
		]);
		asked.delete('before');
		const query = asked.toString();
		for (const name of ['from', 'to']) asked.delete(name);
		const anyDay = asked.toString();
		return {
			...found,
			search,
			query,
			anyDay,
			backup,
			check: searchParams.has('check'),
			now: context.now()
		};
	});
