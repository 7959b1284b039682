import { and, asc, desc, eq, inArray, isNotNull } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { airSource, cylinderFill, fillBatch, item, itemState, place } from '../schema/index.ts';

/** The last fill of each of some cylinders that was ended, with the source of its air. */
export async function latestFills(db: Connection, itemIds: string[]) {
	if (itemIds.length === 0) return [];
	const rows = await db
		.selectDistinctOn([cylinderFill.itemId], {
			itemId: cylinderFill.itemId,
			startedAt: cylinderFill.startedAt,
			endedAt: cylinderFill.endedAt,
			settledBar: cylinderFill.settledBar,
			outcome: cylinderFill.outcome,
			batch: fillBatch.number,
			sourceId: fillBatch.sourceId,
			source: airSource.name
		})
		.from(cylinderFill)
		.innerJoin(fillBatch, eq(fillBatch.id, cylinderFill.batchId))
		.innerJoin(airSource, eq(airSource.id, fillBatch.sourceId))
		.where(and(inArray(cylinderFill.itemId, itemIds), isNotNull(cylinderFill.endedAt)))
		.orderBy(cylinderFill.itemId, desc(cylinderFill.endedAt));
	return rows.flatMap((row) => (row.endedAt ? [{ ...row, endedAt: row.endedAt }] : []));
}

/** Cylinders that were ever filled from a source. */
export const filledFrom = (db: Connection, sourceId: string) =>
	db
		.selectDistinct({ itemId: cylinderFill.itemId })
		.from(cylinderFill)
		.innerJoin(fillBatch, eq(fillBatch.id, cylinderFill.batchId))
		.where(eq(fillBatch.sourceId, sourceId));

/** Items of some families that are held for any reason. */
export const heldOfFamilies = (db: Connection, families: string[]) =>
	db
		.select({ id: item.id, tag: item.tag, place: place.name })
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(eq(itemState.blocked, 'held'), inArray(item.family, families)))
		.orderBy(asc(item.tag));
