import type { Connection } from '../db/client.ts';
import { auditPending } from '../db/schema/index.ts';
import { sha256 } from './sha256.ts';

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

/** Most entries that one statement writes. */
const CHUNK = 1000;

/**
 * Writes entries of the audit log in their order. The database gives them sequence, time and hash as it commits, and
 * holds the end of the chain only for that.
 */
export async function appendEntries(tx: Connection, entries: readonly NewEntry[]): Promise<void> {
	for (let i = 0; i < entries.length; i += CHUNK)
		await tx.insert(auditPending).values(
			entries.slice(i, i + CHUNK).map((entry) => ({
				actorId: entry.actorId,
				action: entry.action,
				itemId: entry.itemId ?? null,
				subject: entry.subject,
				payload: canonicalJson(entry.payload ?? {}),
				at: entry.at ?? null
			}))
		);
}

/** JSON with sorted keys, so that the same content always gives the same text; bytes by their hash. */
export function canonicalJson(value: unknown): string {
	return JSON.stringify(value, (_, part: unknown) => {
		if (part instanceof Uint8Array) return sha256(part);
		return part && typeof part === 'object' && !Array.isArray(part)
			? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
			: part;
	});
}
