import { and, asc, desc, eq, gte, inArray, like, lt, notInArray, type SQL, sql } from 'drizzle-orm';
import type { PgColumn } from 'drizzle-orm/pg-core';
import type { Connection } from '../client.ts';
import { auditEntry, entryCount, item, user } from '../schema/index.ts';

/** What of the log is wanted; what is left out is not asked for. */
export interface HistoryFilter {
	itemId?: string | undefined;
	subject?: string | undefined;
	/** Account of who did it. */
	actorId?: string | undefined;
	/** Place at which the items are now. */
	placeId?: string | undefined;
	/** Names of actions. */
	actions?: readonly string[] | undefined;
	without?: readonly string[] | undefined;
	from?: Date | undefined;
	to?: Date | undefined;
	/** Entries before this one. */
	before?: number | undefined;
}

/** Which actions, and from when to when: what the log is counted by as well. */
const within = (
	{ actions, without, from, to }: HistoryFilter,
	action: PgColumn,
	moment: PgColumn
) =>
	and(
		actions ? inArray(action, [...actions]) : undefined,
		without?.length ? notInArray(action, [...without]) : undefined,
		from ? gte(moment, from) : undefined,
		to ? lt(moment, to) : undefined
	);

const conditions = (filter: HistoryFilter) =>
	and(
		filter.itemId ? eq(auditEntry.itemId, filter.itemId) : undefined,
		filter.subject ? eq(auditEntry.subject, filter.subject) : undefined,
		filter.actorId ? eq(auditEntry.actorId, filter.actorId) : undefined,
		filter.placeId
			? sql`exists (select 1 from item i where i.id = audit_entry.item_id and i.place_id = ${filter.placeId})`
			: undefined,
		within(filter, auditEntry.action, auditEntry.at),
		filter.before ? lt(auditEntry.seq, filter.before) : undefined
	);

/** Entries of the log, newest first, with who acted and the tag of the item. */
export const historyRows = (db: Connection, filter: HistoryFilter & { limit: number }) =>
	db
		.select({ entry: auditEntry, actor: user.name, tag: item.tag })
		.from(auditEntry)
		.leftJoin(user, eq(user.id, auditEntry.actorId))
		.leftJoin(item, eq(item.id, auditEntry.itemId))
		.where(conditions(filter))
		.orderBy(desc(auditEntry.seq))
		.limit(filter.limit);

/** What the log is counted by beforehand; of anything else its entries are counted one by one. */
const isCounted = ({ itemId, subject, actorId, placeId, before }: HistoryFilter) =>
	[itemId, subject, actorId, placeId, before].every((asked) => asked === undefined);

const count = (of: SQL) => sql<number>`${of}`.mapWith(Number);

/** How many entries each day has, by the calendar of a time zone; from and to are beginnings of its days. */
export const historyDays = (db: Connection, filter: HistoryFilter, timeZone: string) => {
	const dayOf = (moment: PgColumn) =>
		sql<string>`(${moment} at time zone ${sql.raw(`'${timeZone.replaceAll("'", '')}'`)})::date`;
	// Days are written as text once they are counted: for each entry that would cost more than the counting.
	const day = dayOf(auditEntry.at);
	if (!isCounted(filter))
		return db
			.select({ day: sql<string>`${day}::text`, entries: count(sql`count(*)`) })
			.from(auditEntry)
			.where(conditions(filter))
			.groupBy(day)
			.orderBy(asc(day));
	const counted = dayOf(entryCount.quarter);
	return db
		.select({ day: sql<string>`${counted}::text`, entries: count(sql`sum(${entryCount.entries})`) })
		.from(entryCount)
		.where(within(filter, entryCount.action, entryCount.quarter))
		.groupBy(counted)
		.orderBy(asc(counted));
};

/** Draws together what was counted of the log from a moment on; what is written meanwhile stays beside it. */
export async function gatherEntryCounts(db: Connection, since: Date): Promise<void> {
	await db.execute(sql`
		with gone as (delete from ${entryCount} where ${entryCount.quarter} >= ${since} returning *)
		insert into ${entryCount} (quarter, action, entries)
		select quarter, action, sum(entries) from gone group by 1, 2`);
}

/** Entries whose hash begins so, and the hash of the entry before each. */
export const entriesByHash = (db: Connection, hash: string, most: number) =>
	db
		.select()
		.from(auditEntry)
		.where(like(auditEntry.hash, `${hash}%`))
		.orderBy(asc(auditEntry.seq))
		.limit(most);

/** An entry by its number, with the one before it. */
export const entryAndBefore = (db: Connection, seq: number) =>
	db
		.select()
		.from(auditEntry)
		.where(inArray(auditEntry.seq, [seq - 1, seq]))
		.orderBy(asc(auditEntry.seq));

export interface EntryAsked {
	subject: string;
	action: string;
	holds?: string;
	since?: Date;
}

/** The entry of an action on a subject that holds a text, if any is given: the newest, or the first since a moment. */
export const entriesOf = (db: Connection, { subject, action, holds, since }: EntryAsked) =>
	db
		.select({ seq: auditEntry.seq, hash: auditEntry.hash, at: auditEntry.at })
		.from(auditEntry)
		.where(
			and(
				eq(auditEntry.subject, subject),
				eq(auditEntry.action, action),
				holds ? like(auditEntry.payload, `%${holds.replaceAll(/[%_\\]/g, '')}%`) : undefined,
				since ? gte(auditEntry.at, since) : undefined
			)
		)
		.orderBy(since ? asc(auditEntry.seq) : desc(auditEntry.seq))
		.limit(1);
