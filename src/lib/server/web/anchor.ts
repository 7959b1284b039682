import type { Connection } from '../db/client.ts';
import { type Anchor, anchorHead, type AnchorPlace } from '../kernel/anchors.ts';
import { config } from './config.ts';

/** Where this installation keeps its key and its anchors; undefined where it keeps none. */
export function anchorPlace(): AnchorPlace | undefined {
	const { GREVAN_LOG_KEY: key, GREVAN_ANCHORS: file } = config();
	return key && file ? { key, file } : undefined;
}

/** Signs the end of the log, where this installation keeps anchors. */
export async function anchorNow(
	db: Connection,
	why: Anchor['why'],
	now: Date
): Promise<Anchor | null> {
	const place = anchorPlace();
	return place ? anchorHead(db, place, why, now) : null;
}
