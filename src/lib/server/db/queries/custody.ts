import { and, asc, count, eq, gt, gte, isNull, ne, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import {
	custody,
	handOut,
	hazardPlan,
	item,
	itemModel,
	itemState,
	place,
	placeFloor,
	wearer
} from '../schema/index.ts';
import { countByPlace, countUsable } from './stock.ts';

/** What a place keeps ready of a family and how many it has that may be taken; null where it keeps no floor. */
export async function floorOf(
	db: Connection,
	{ placeId, family }: { placeId: string; family: string },
	asOf: string
): Promise<{ keeps: number; ready: number } | null> {
	const [floor] = await db
		.select({ keeps: placeFloor.floor })
		.from(placeFloor)
		.where(
			and(eq(placeFloor.placeId, placeId), eq(placeFloor.family, family), gt(placeFloor.floor, 0))
		);
	if (!floor) return null;
	return { keeps: floor.keeps, ready: await countUsable(db, { placeId, family }, asOf) };
}

/** Everything that is not on its shelf, the longest there first. */
export function awayFromShelf(db: Connection) {
	return db
		.select({
			itemId: custody.itemId,
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			size: item.size,
			home: place.name,
			placeId: item.placeId,
			where: custody.where,
			since: custody.since,
			note: custody.note,
			batchId: custody.batchId,
			wearerId: custody.wearerId,
			number: wearer.number,
			name: wearer.name,
			planId: handOut.planId,
			task: hazardPlan.task,
			minutes: handOut.minutes,
			dueBackAt: handOut.dueBackAt,
			handOutId: custody.handOutId
		})
		.from(custody)
		.innerJoin(item, eq(item.id, custody.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(wearer, eq(wearer.id, custody.wearerId))
		.leftJoin(handOut, eq(handOut.id, custody.handOutId))
		.leftJoin(hazardPlan, eq(hazardPlan.id, handOut.planId))
		.where(and(isNull(custody.until), ne(custody.where, 'shelf'), isNull(item.retiredOn)))
		.orderBy(asc(custody.since), asc(item.tag));
}
export type Away = Awaited<ReturnType<typeof awayFromShelf>>[number];

/** How many lie on the shelf of each place, what is in a set not counted: all that stands there less what is away. */
export async function onShelves(db: Connection): Promise<{ placeId: string; n: number }[]> {
	const [all, away] = await Promise.all([
		countByPlace(db),
		db
			.select({ placeId: item.placeId, n: count() })
			.from(custody)
			.innerJoin(item, eq(item.id, custody.itemId))
			.where(
				and(
					isNull(custody.until),
					ne(custody.where, 'shelf'),
					isNull(item.retiredOn),
					isNull(item.setId)
				)
			)
			.groupBy(item.placeId)
	]);
	const gone = new Map(away.map(({ placeId, n }) => [placeId, n]));
	return all.map(({ placeId, n }) => ({ placeId, n: n - (gone.get(placeId) ?? 0) }));
}

/** How many rows of an item are open, and how many items have not just one: a check for tests and repairs. */
export async function itemsNotOnce(db: Connection): Promise<number> {
	const { rows } = await db.execute<{ n: number }>(sql`
		select count(*)::int as n from item i
		where (select count(*) from custody c where c.item_id = i.id and c.until is null) <> 1`);
	return rows[0]?.n ?? 0;
}

/** What may be asked for at the counter: ready or out, by itself and no part of a set; by tag. */
export const countedOut = async (db: Connection, asOf: string, most: number): Promise<string[]> =>
	(
		await db
			.select({ id: item.id })
			.from(item)
			.innerJoin(itemState, eq(itemState.itemId, item.id))
			.where(
				and(
					isNull(item.setId),
					isNull(item.retiredOn),
					sql`(${itemState.blocked} is null or ${itemState.blocked} = 'issued')`,
					gte(itemState.dueOn, asOf)
				)
			)
			.orderBy(asc(item.tag))
			.limit(most)
	).map(({ id }) => id);

/** What is out with a wearer now, and for what. */
export const outWith = (db: Connection, wearerId: string) =>
	db
		.select({
			tag: item.tag,
			model: itemModel.name,
			size: item.size,
			since: custody.since,
			task: hazardPlan.task,
			dueBackAt: handOut.dueBackAt,
			handOutId: custody.handOutId
		})
		.from(custody)
		.innerJoin(item, eq(item.id, custody.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.leftJoin(handOut, eq(handOut.id, custody.handOutId))
		.leftJoin(hazardPlan, eq(hazardPlan.id, handOut.planId))
		.where(and(eq(custody.wearerId, wearerId), isNull(custody.until)))
		.orderBy(asc(custody.since));
