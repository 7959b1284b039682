import { readAnchors } from '../kernel/anchors.ts';
import { type ChainCheck, verifyChain } from '../kernel/chain.ts';
import type { Context } from '../kernel/context.ts';
import { endProgress, tellProgress } from '../register/progress.ts';
import { anchorPlace } from './anchor.ts';
import { sharedPoll } from './shared-poll.ts';

/** A check is asked for by many at once for no more than one. */
const CHECK_HOLDS_MS = 5000;

/**
 * Checks the whole log and the records that it tells of; whoever asks while one is under way gets that one.
 * @param id made by the page: by it how far it is can be asked
 */
export const checkLog = (context: Context, id: string): Promise<ChainCheck> =>
	sharedPoll('log', CHECK_HOLDS_MS, async () => {
		const place = anchorPlace();
		try {
			return await verifyChain(context.db, {
				signed: place && (await readAnchors(place)),
				told: (done, total) => tellProgress(context, id, done, total)
			});
		} finally {
			await endProgress(context, id);
		}
	});
