import { and, asc, desc, eq, gt, gte, inArray, isNotNull, isNull, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { auditHead, entryReading, entryTeam, entryWearer, item, place } from '../schema/index.ts';

/** Changes with every write that a board can show: cheap enough to ask for several times a second. */
export async function boardVersion(db: Connection): Promise<string> {
	const [row] = await db
		.select({
			audit: auditHead.seq,
			reading: sql<number>`(select coalesce(max(seq), 0) from entry_reading)`
		})
		.from(auditHead);
	return `${row?.audit ?? 0}.${row?.reading ?? 0}`;
}

/** Wearers of the teams that are open, those who are out as well, in the order they went in. */
export const openWearers = (db: Connection) =>
	db
		.select({ wearer: entryWearer, team: entryTeam, place: place.name, set: item.tag })
		.from(entryWearer)
		.innerJoin(entryTeam, eq(entryTeam.id, entryWearer.teamId))
		.leftJoin(place, eq(place.id, entryTeam.placeId))
		.leftJoin(item, eq(item.id, entryWearer.setId))
		.where(isNull(entryTeam.closedAt))
		.orderBy(asc(entryTeam.number), asc(entryWearer.startedAt), asc(entryWearer.wearer));

/** Readings of wearers after a place in the order of writing. */
export const readingsAfter = (db: Connection, wearerIds: string[], seq: number) =>
	db
		.select()
		.from(entryReading)
		.where(and(inArray(entryReading.wearerId, wearerIds), gt(entryReading.seq, seq)))
		.orderBy(asc(entryReading.seq));

/** When each of some wearers was last heard of, and last by telemetry; those never heard of are left out. */
export const lastHeard = (db: Connection, wearerIds: string[]) =>
	db
		.select({
			wearerId: entryReading.wearerId,
			at: sql<string>`max(${entryReading.at})`,
			telemetryAt: sql<
				string | null
			>`max(${entryReading.at}) filter (where ${entryReading.by} = 'telemetry')`
		})
		.from(entryReading)
		.where(inArray(entryReading.wearerId, wearerIds))
		.groupBy(entryReading.wearerId);

/** Uses of wearers that have ended, newest first; of one wearer where named. */
export const endedUses = (db: Connection, wearer?: string) =>
	db
		.select({ wearer: entryWearer, task: entryTeam.task, number: entryTeam.number })
		.from(entryWearer)
		.innerJoin(entryTeam, eq(entryTeam.id, entryWearer.teamId))
		.where(and(isNotNull(entryWearer.endedAt), wearer ? eq(entryWearer.wearer, wearer) : undefined))
		.orderBy(desc(entryWearer.endedAt))
		.limit(500);

/** The last entry of a set that ended since a moment, and what its gauge showed then; undefined: none. */
export async function lastEntryOf(db: Connection, setId: string, since: Date) {
	const [row] = await db
		.select({
			startedAt: entryWearer.startedAt,
			endedAt: entryWearer.endedAt,
			endBar: entryWearer.endBar
		})
		.from(entryWearer)
		.where(and(eq(entryWearer.setId, setId), gte(entryWearer.endedAt, since)))
		.orderBy(desc(entryWearer.endedAt))
		.limit(1);
	return row;
}
