import {
	and,
	asc,
	count,
	eq,
	gt,
	gte,
	ilike,
	isNotNull,
	isNull,
	lt,
	lte,
	or,
	sql,
	type SQL
} from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { ItemState } from '../../../../core/readiness/item-state.ts';
import type { Connection } from '../client.ts';
import { item, itemModel, itemState, place } from '../schema/index.ts';

/** The state on a day, in SQL; stateOn (core/readiness) says the same and a test compares the two. */
export const stateOnDay = (asOf: string) =>
	sql<ItemState>`case when ${itemState.blocked} is not null then ${itemState.blocked}
		when ${asOf}::date > ${itemState.dueOn} then 'overdue'
		when ${asOf}::date >= ${itemState.dueFrom} then 'due' else 'ready' end`;

/** The same as a condition that an index on the due date can serve. */
function inState(state: ItemState, asOf: string): SQL | undefined {
	const free = isNull(itemState.blocked);
	if (state === 'overdue') return and(free, lt(itemState.dueOn, asOf));
	if (state === 'due') return and(free, gte(itemState.dueOn, asOf), lte(itemState.dueFrom, asOf));
	if (state === 'ready') return and(free, gte(itemState.dueOn, asOf), gt(itemState.dueFrom, asOf));
	return eq(sql`${itemState.blocked}`, state);
}

const columns = (asOf: string) => ({
	id: item.id,
	tag: item.tag,
	model: itemModel.name,
	size: item.size,
	place: place.name,
	state: stateOnDay(asOf),
	dueOn: itemState.dueOn,
	dueWhat: itemState.dueWhat,
	watchedFor: itemState.watchedFor,
	lastInspectionOn: itemState.lastInspectionOn
});

/** Items with their model, place and state; what every list of items starts from. */
const rows = (db: Connection, asOf: string) =>
	db
		.select(columns(asOf))
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId));

export type ItemRow = Awaited<ReturnType<typeof listItems>>[number];

export interface ItemFilter {
	text?: string | undefined;
	family?: string | undefined;
	state?: ItemState | undefined;
	placeId?: string | undefined;
}

function matching(filter: ItemFilter, asOf: string): SQL | undefined {
	const parts: (SQL | undefined)[] = [];
	if (filter.text) {
		const like = `%${filter.text.replaceAll(/[%_\\]/g, '\\$&')}%`;
		parts.push(or(ilike(item.tag, like), ilike(itemModel.name, like), ilike(place.name, like)));
	}
	if (filter.state) parts.push(inState(filter.state, asOf));
	if (filter.placeId) parts.push(eq(item.placeId, filter.placeId));
	if (filter.family) parts.push(eq(item.family, filter.family));
	return and(...parts);
}

/** One page of the register, by tag. */
export function listItems(
	db: Connection,
	filter: ItemFilter,
	asOf: string,
	page: { limit: number; offset: number }
) {
	return rows(db, asOf)
		.where(matching(filter, asOf))
		.orderBy(asc(item.tag))
		.limit(page.limit)
		.offset(page.offset);
}

const inSet = alias(item, 'in_set');

/** Every item that a filter finds, with what an export says of it. */
export function allItems(db: Connection, filter: ItemFilter, asOf: string) {
	return db
		.select({
			tag: item.tag,
			model: itemModel.name,
			size: item.size,
			serial: item.serial,
			place: place.name,
			inUseSince: item.inUseSince,
			set: inSet.tag,
			state: stateOnDay(asOf),
			dueOn: itemState.dueOn
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(matching(filter, asOf))
		.orderBy(asc(item.tag));
}

/** How many items a filter finds. */
export async function countItems(db: Connection, filter: ItemFilter, asOf: string) {
	if (!filter.state && !filter.text) {
		const of = and(
			filter.placeId ? eq(item.placeId, filter.placeId) : undefined,
			filter.family ? eq(item.family, filter.family) : undefined
		);
		const [all] = await db.select({ n: count() }).from(item).where(of);
		return all?.n ?? 0;
	}
	const base = db.select({ n: count() }).from(item);
	const joined = filter.text
		? base
				.innerJoin(itemModel, eq(itemModel.id, item.modelId))
				.innerJoin(place, eq(place.id, item.placeId))
		: base;
	const [row] = await joined
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.where(matching(filter, asOf));
	return row?.n ?? 0;
}

/** Items of one state, those that fall due first ahead. */
export function itemsInState(db: Connection, state: ItemState, asOf: string, limit: number) {
	return rows(db, asOf)
		.where(inState(state, asOf))
		.orderBy(asc(itemState.dueOn), asc(item.tag))
		.limit(limit);
}

/** Items that fall due up to a day and are not out of use, earliest first. */
export function itemsDueUntil(db: Connection, until: string, asOf: string, limit: number) {
	return rows(db, asOf)
		.where(and(isNull(itemState.blocked), lte(itemState.dueOn, until)))
		.orderBy(asc(itemState.dueOn), asc(item.tag))
		.limit(limit);
}

/** Items that are usable and watched, what falls due first before the rest. */
export function itemsWatched(db: Connection, asOf: string, limit: number) {
	return rows(db, asOf)
		.where(
			and(isNull(itemState.blocked), isNotNull(itemState.watchedFor), gte(itemState.dueOn, asOf))
		)
		.orderBy(asc(itemState.dueOn), asc(item.tag))
		.limit(limit);
}

/** How many items of each family are ready or due, that is, may be taken. */
export function countReady(db: Connection, asOf: string) {
	return db
		.select({ family: item.family, n: count() })
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.where(and(isNull(itemState.blocked), gte(itemState.dueOn, asOf)))
		.groupBy(item.family);
}

/** How many items of a family each place has in each state. */
export function statesByPlace(db: Connection, family: string, asOf: string) {
	return db
		.select({
			placeId: place.id,
			place: place.name,
			floor: place.floor,
			state: stateOnDay(asOf).as('state'),
			n: count()
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(eq(item.family, family))
		.groupBy(place.id, sql`state`)
		.orderBy(asc(place.name));
}
