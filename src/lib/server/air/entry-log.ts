import { asc, desc, eq, inArray } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { shownNames } from '../db/queries/names.ts';
import { entryAlarm, entryTeam, entryWearer, item, place, user } from '../db/schema/index.ts';
import { consumptionOfUse } from './uses.ts';

/** Entries that are over, newest first, each with its wearers, and alarms. */
export async function entryLog(db: Connection, limit = 20) {
	const teams = await db
		.select({ team: entryTeam, place: place.name, by: user.name })
		.from(entryTeam)
		.innerJoin(user, eq(user.id, entryTeam.openedBy))
		.leftJoin(place, eq(place.id, entryTeam.placeId))
		.orderBy(desc(entryTeam.number))
		.limit(limit);
	const ids = teams.map((row) => row.team.id);
	if (ids.length === 0) return [];
	const wearers = await db
		.select({ wearer: entryWearer, set: item.tag })
		.from(entryWearer)
		.leftJoin(item, eq(item.id, entryWearer.setId))
		.where(inArray(entryWearer.teamId, ids))
		.orderBy(asc(entryWearer.wearer));
	const alarms = await db
		.select({ alarm: entryAlarm, seenBy: user.initials })
		.from(entryAlarm)
		.leftJoin(user, eq(user.id, entryAlarm.seenBy))
		.where(
			inArray(
				entryAlarm.wearerId,
				wearers.map((row) => row.wearer.id)
			)
		)
		.orderBy(asc(entryAlarm.dueAt));
	const shown = await shownNames(db);
	return teams.map((row) => ({
		...row,
		wearers: wearers
			.filter((w) => w.wearer.teamId === row.team.id)
			.map((w) => ({
				...w,
				wearer: { ...w.wearer, wearer: shown(w.wearer.wearer) },
				lPerMin: consumptionOfUse(w.wearer),
				alarms: alarms.filter((a) => a.alarm.wearerId === w.wearer.id)
			}))
	}));
}
