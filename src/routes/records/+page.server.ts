import { readAnchors } from '$lib/server/kernel/anchors';
import { verifyChain } from '$lib/server/kernel/chain';
import type { Context } from '$lib/server/kernel/context';
import { lastBackup } from '$lib/server/records/backups';
import { searchRecords } from '$lib/server/records/search';
import { anchorPlace } from '$lib/server/web/anchor';
import { recordSearch } from '$lib/server/web/record-search';
import { sharedPoll } from '$lib/server/web/shared-poll';
import { contextOf, page } from '$lib/server/web/request';
import type { PageServerLoad } from './$types';

/** A check is asked for by many at once for no more than one. */
const CHECK_HOLDS_MS = 5000;
const checked = ({ db }: Context) =>
	sharedPoll('log', CHECK_HOLDS_MS, async () => {
		const place = anchorPlace();
		return verifyChain(db, { signed: place && (await readAnchors(place)) });
	});

export const load: PageServerLoad = (event) =>
	page(async () => {
		const context = contextOf(event);
		const { searchParams } = event.url;
		const asked = new URLSearchParams([...searchParams].filter(([name]) => name !== 'check'));
		const search = recordSearch(asked);
		const [found, backup, check] = await Promise.all([
			searchRecords(context, search),
			lastBackup(context.db),
			searchParams.has('check') ? checked(context) : null
		]);
		asked.delete('before');
		const query = asked.toString();
		for (const name of ['from', 'to']) asked.delete(name);
		const anyDay = asked.toString();
		return { ...found, search, query, anyDay, backup, check, now: context.now() };
	});
