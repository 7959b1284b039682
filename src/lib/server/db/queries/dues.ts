import { and, asc, eq, gte, isNull, lt, lte, ne, type SQL } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { Day } from '../../../../core/plan/calendar.ts';
import { atMost, type Connection } from '../client.ts';
import { item, itemDue, itemModel, itemState, place } from '../schema/index.ts';
import { stateOnDay } from './items.ts';

const inSet = alias(item, 'in_set');
/** A part is listed by itself: its set asks for nothing more. */
const own = ne(itemDue.what, 'part');
const free = isNull(itemState.blocked);

/**
 * Dues of items that nothing blocks, the earliest first, then by tag. Which of one day they are where not all are wanted
 * goes by the order of the index, so that no more is read than is given: a day may have thousands.
 */
async function dues(db: Connection, asOf: Day, when: SQL | undefined, limit: number) {
	const found = await db
		.select({
			id: item.id,
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			size: item.size,
			placeId: place.id,
			place: place.name,
			/** The set that it is on. */
			set: inSet.tag,
			state: stateOnDay(asOf),
			dueOn: itemDue.dueOn,
			dueWhat: itemDue.what,
			dueDetail: itemDue.detail,
			dueLeft: itemDue.leftWords,
			watchedFor: itemState.watchedFor,
			lastInspectionOn: itemState.lastInspectionOn
		})
		.from(itemDue)
		.innerJoin(item, eq(item.id, itemDue.itemId))
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(and(free, own, when))
		.orderBy(asc(itemDue.dueOn), asc(itemDue.itemId))
		.limit(atMost(limit));
	const order = ({ dueOn, tag }: (typeof found)[number]) => `${dueOn} ${tag}`;
	return found.sort((a, b) => (order(a) < order(b) ? -1 : 1));
}
export type DueRow = Awaited<ReturnType<typeof dues>>[number];

/** What falls due up to a day, overdue included. */
export const duesUntil = (db: Connection, until: Day, asOf: Day, limit: number) =>
	dues(db, asOf, lte(itemDue.dueOn, until), limit);

/** What is past its last day. */
export const duesOver = (db: Connection, asOf: Day, limit: number) =>
	dues(db, asOf, lt(itemDue.dueOn, asOf), limit);

/** What counts as due and may still be used. */
export const duesNow = (db: Connection, asOf: Day, limit: number) =>
	dues(db, asOf, and(gte(itemDue.dueOn, asOf), lte(itemDue.dueFrom, asOf)), limit);

/** Every due of an item, the next first; those of parts with their tag. */
export const duesOfItem = (db: Connection, itemId: string) =>
	db
		.select({
			what: itemDue.what,
			detail: itemDue.detail,
			part: itemDue.part,
			from: itemDue.dueFrom,
			on: itemDue.dueOn,
			left: itemDue.leftWords
		})
		.from(itemDue)
		.where(eq(itemDue.itemId, itemId))
		.orderBy(asc(itemDue.dueOn), asc(itemDue.what));
