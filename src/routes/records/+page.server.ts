import { readAnchors } from '$lib/server/kernel/anchors';
import { verifyChain } from '$lib/server/kernel/chain';
import type { Context } from '$lib/server/kernel/context';
import { history } from '$lib/server/records/history';
import { anchorPlace } from '$lib/server/web/anchor';
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
		const check = event.url.searchParams.has('check') ? await checked(context) : null;
		return { lines: await history(context, { limit: 60 }), check };
	});
