import { and, asc, eq, isNotNull, isNull, notExists, type SQL, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { type Counted, countSome } from './count-some.ts';
import { filterLot, filterPair, itemDue } from '../schema/index.ts';

const open = isNull(filterPair.discardedAt);
/** The due of the filters on an item itself, not of its parts. */
const ofFilters = and(eq(itemDue.what, 'filters'), eq(itemDue.part, ''));

/** Opened pairs that are to be changed one day, the next first; by the index on dues of a kind. */
const withDue = (db: Connection, lots: SQL | undefined) =>
	db
		.select({ id: filterPair.id, dueOn: itemDue.dueOn, number: filterPair.number })
		.from(itemDue)
		.innerJoin(filterPair, and(eq(filterPair.itemId, itemDue.itemId), open))
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.where(and(ofFilters, lots))
		.orderBy(asc(itemDue.dueOn), asc(itemDue.itemId));

/** Of one day by their numbers; which of a day they are where not all are wanted goes by the order of the index. */
const byDay = (found: Awaited<ReturnType<typeof withDue>>) =>
	found.sort((a, b) => (a.dueOn === b.dueOn ? a.number - b.number : a.dueOn < b.dueOn ? -1 : 1));

/** Those that nothing falls due of, by their numbers. */
const withoutDue = (db: Connection, lots: SQL | undefined) =>
	db
		.select({ id: filterPair.id })
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.where(
			and(
				open,
				lots,
				notExists(
					db
						.select({ one: sql`1` })
						.from(itemDue)
						.where(and(eq(itemDue.itemId, filterPair.itemId), ofFilters))
				)
			)
		)
		.orderBy(asc(filterPair.number));

/**
 * Ids of a page of the opened pairs: of recalled lots first, then the next to change, then those that nothing falls
 * due of. Each of the three in turn, so that no more is read than is shown: sorted together, all of them are.
 */
export async function openPairIds(
	db: Connection,
	{ limit, offset }: { limit: number; offset: number }
): Promise<string[]> {
	const ids = (rows: { id: string }[]) => rows.map(({ id }) => id);
	const recalledLots = isNotNull(filterLot.recalledAt);
	const recalled = [
		...ids(byDay(await withDue(db, recalledLots))),
		...ids(await withoutDue(db, recalledLots))
	];
	const found = recalled.slice(offset, offset + limit);
	if (found.length === limit) return found;
	const others = isNull(filterLot.recalledAt);
	const skip = Math.max(0, offset - recalled.length);
	const next = ids(
		byDay(
			await withDue(db, others)
				.limit(limit - found.length)
				.offset(skip)
		)
	);
	found.push(...next);
	if (found.length === limit) return found;
	const before = next.length ? skip : await db.$count(withDue(db, others).as('due'));
	found.push(
		...ids(
			await withoutDue(db, others)
				.limit(limit - found.length)
				.offset(Math.max(0, skip - before))
		)
	);
	return found;
}

/** How many pairs are open. */
export const countOpenPairs = (db: Connection): Promise<Counted> =>
	countSome(db, db.select({ id: filterPair.id }).from(filterPair).where(open));
