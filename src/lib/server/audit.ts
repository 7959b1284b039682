import { createHash } from 'node:crypto';
import { asc, desc, eq, gt } from 'drizzle-orm';
import type { Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { auditEntry, auditHead, user } from './db/schema/index.ts';

export interface Deed {
	action: string;
	/** Kind and id of what it was done to, such as run:uuid. */
	subject: string;
	itemId?: string | null;
	payload?: Record<string, unknown>;
	/** Only for records that are brought in with their own time. */
	at?: Date;
}

/** Writes one entry of the audit log in the transaction of the deed itself. Sequence and hash come from the database. */
export async function record(tx: Connection, actorId: string | null, deed: Deed): Promise<void> {
	const row = {
		actorId,
		action: deed.action,
		itemId: deed.itemId ?? null,
		subject: deed.subject,
		payload: canonicalJson(deed.payload ?? {}),
		// A trigger fills these in; the columns are not null for everyone else.
		seq: 0,
		prevHash: '',
		hash: '',
		at: deed.at ?? (null as unknown as Date)
	};
	await tx.insert(auditEntry).values(row);
}

/** JSON with sorted keys, so that the same content always gives the same text. */
export function canonicalJson(value: unknown): string {
	return JSON.stringify(value, (_, part: unknown) =>
		part && typeof part === 'object' && !Array.isArray(part)
			? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
			: part
	);
}

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
	fault?: { seq: number; text: string };
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
			const fault =
				entry.seq !== seq + 1
					? `entry ${seq + 1} is missing`
					: entry.prevHash !== hash
						? 'it does not follow from the entry before it'
						: entry.hash !== hashOf(entry)
							? 'its content was changed'
							: undefined;
			if (fault) return { entries, head: hash, fault: { seq: entry.seq, text: fault } };
			[seq, hash, entries] = [entry.seq, entry.hash, entries + 1];
		}
		if (page.length < pageSize) break;
	}
	const [head] = await db.select().from(auditHead);
	if (head && (head.seq !== seq || head.hash !== hash))
		return { entries, head: hash, fault: { seq: seq + 1, text: 'entries are cut off at the end' } };
	return { entries, head: hash };
}

export interface HistoryLine {
	seq: number;
	at: Date;
	actor: string;
	action: string;
	subject: string;
	payload: Record<string, unknown>;
	hash: string;
}

/** What happened, newest first: of one item, or of everything. */
export async function history(
	context: Pick<Context, 'db'>,
	filter: { itemId?: string; limit?: number } = {}
): Promise<HistoryLine[]> {
	const rows = await context.db
		.select({ entry: auditEntry, actor: user.name })
		.from(auditEntry)
		.leftJoin(user, eq(user.id, auditEntry.actorId))
		.where(filter.itemId ? eq(auditEntry.itemId, filter.itemId) : undefined)
		.orderBy(desc(auditEntry.seq))
		.limit(filter.limit ?? 200);
	return rows.map(({ entry, actor }) => ({
		seq: entry.seq,
		at: entry.at,
		actor: actor ?? 'Grevan',
		action: entry.action,
		subject: entry.subject,
		payload: JSON.parse(entry.payload) as Record<string, unknown>,
		hash: entry.hash
	}));
}
