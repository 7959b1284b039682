import { asc, gt } from 'drizzle-orm';
import { createHash } from 'node:crypto';
import type { Connection } from '../db/client.ts';
import { auditEntry, auditHead } from '../db/schema/index.ts';

type Entry = typeof auditEntry.$inferSelect;
const START = '0'.repeat(64);

/** The hash that an entry must have, worked out independently of the database. */
export function hashOf(entry: Omit<Entry, 'hash'>): string {
	const text = [
		entry.prevHash,
		entry.seq,
		entry.at.toISOString(),
		entry.actorId ?? '',
		entry.action,
		entry.itemId ?? '',
		entry.subject,
		entry.payload
	].join('\n');
	return createHash('sha256').update(text).digest('hex');
}

export interface ChainCheck {
	entries: number;
	head: string;
	/** The first entry that does not fit, and why. */
	broken?: { seq: number; text: string };
}

/** Walks the whole chain in pages and says where it breaks. */
export async function verifyChain(db: Connection, pageSize = 2000): Promise<ChainCheck> {
	let [seq, hash, entries] = [0, START, 0];
	for (;;) {
		const page = await db
			.select()
			.from(auditEntry)
			.where(gt(auditEntry.seq, seq))
			.orderBy(asc(auditEntry.seq))
			.limit(pageSize);
		for (const entry of page) {
			const broken =
				entry.seq !== seq + 1
					? `entry ${seq + 1} is missing`
					: entry.prevHash !== hash
						? 'it does not follow from the entry before it'
						: entry.hash !== hashOf(entry)
							? 'its content was changed'
							: undefined;
			if (broken) return { entries, head: hash, broken: { seq: entry.seq, text: broken } };
			[seq, hash, entries] = [entry.seq, entry.hash, entries + 1];
		}
		if (page.length < pageSize) break;
	}
	const [head] = await db.select().from(auditHead);
	if (head && (head.seq !== seq || head.hash !== hash))
		return {
			entries,
			head: hash,
			broken: { seq: seq + 1, text: 'entries are cut off at the end' }
		};
	return { entries, head: hash };
}
