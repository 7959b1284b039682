import { WHERES, type Where } from '../../../core/custody/custody.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { Connection } from '../db/client.ts';
import { type Away, awayFromShelf, onShelves } from '../db/queries/custody.ts';
import { listPlaces } from '../hazards/plans.ts';

/** Something that is not on its shelf, as a row. */
export type AwayRow = Away & { overdue: boolean };

/** What is out or on its way, and what of it should be back by now. Asks nothing of what lies on its shelf. */
export async function awayNow(db: Connection, now: Date): Promise<AwayRow[]> {
	const rows = await awayFromShelf(db);
	return rows.map((row) => ({
		...row,
		overdue: row.where === 'issued' && row.dueBackAt !== null && row.dueBackAt < now
	}));
}

/** Where everything is: what is out or on its way, by where it is, and how many lie on each shelf. */
export async function whereEverything(db: Connection, now: Date) {
	const [away, shelves, places] = await Promise.all([
		awayNow(db, now),
		onShelves(db),
		listPlaces(db)
	]);
	const by = groupBy(away, ({ where }) => where);
	const on = new Map(shelves.map(({ placeId, n }) => [placeId, n]));
	const awayFrom = groupBy(away, ({ placeId }) => placeId);
	return {
		away,
		overdue: away.filter((row) => row.overdue),
		stations: WHERES.filter((where) => where !== 'shelf').map((where) => stationOf(where, by)),
		places: places.map(({ id, name, kind }) => ({
			id,
			name,
			kind,
			onShelf: on.get(id) ?? 0,
			away: awayFrom.get(id)?.length ?? 0,
			out: awayFrom.get(id)?.filter(({ where }) => where === 'issued').length ?? 0
		}))
	};
}

/** How many wait somewhere and since when the oldest does. */
const stationOf = (where: Where, by: ReadonlyMap<Where, AwayRow[]>) => {
	const rows = by.get(where) ?? [];
	return { where, count: rows.length, oldest: rows[0]?.since ?? null };
};

/** Who has what, each person once, the one who is overdue first. */
export function byPerson(away: readonly AwayRow[]) {
	const out = away.filter(({ where }) => where === 'issued');
	return [...groupBy(out, ({ wearerId }) => wearerId ?? '')]
		.map(([wearerId, rows]) => ({
			wearerId,
			number: rows[0]?.number ?? '',
			name: rows[0]?.name ?? '',
			tags: rows.map(({ tag }) => tag),
			task: rows.find(({ task }) => task)?.task ?? null,
			since: rows[0]?.since ?? null,
			dueBackAt: rows.find(({ dueBackAt }) => dueBackAt)?.dueBackAt ?? null,
			overdue: rows.some(({ overdue }) => overdue)
		}))
		.toSorted(
			(a, b) =>
				Number(b.overdue) - Number(a.overdue) ||
				(a.dueBackAt?.getTime() ?? Infinity) - (b.dueBackAt?.getTime() ?? Infinity) ||
				a.name.localeCompare(b.name)
		);
}
