import type { Connection } from '../db/client.ts';
import { auditPending } from '../db/schema/index.ts';
import { insertMany } from '../db/insert-many.ts';
import { canonicalJson } from './canonical-json.ts';

/** An entry before the database gives it its place in the chain. */
export interface NewEntry {
	actorId: string | null;
	action: string;
	/** Kind and id of what it was done to, such as run:uuid. */
	subject: string;
	itemId?: string | null;
	payload?: Record<string, unknown>;
	/** Only for records that are brought in with their own time. */
	at?: Date;
}

/**
 * Writes entries of the audit log in their order. The database gives them sequence, time and hash as it commits, and
 * holds the end of the chain only for that.
 */
export async function appendEntries(tx: Connection, entries: readonly NewEntry[]): Promise<void> {
	await insertMany(
		tx,
		auditPending,
		entries.map((entry) => ({
			actorId: entry.actorId,
			action: entry.action,
			itemId: entry.itemId ?? null,
			subject: entry.subject,
			payload: canonicalJson(entry.payload ?? {}),
			at: entry.at ?? null
		}))
	);
}
