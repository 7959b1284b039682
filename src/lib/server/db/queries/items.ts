import {
	and,
	asc,
	count,
	desc,
	eq,
	gte,
	ilike,
	inArray,
	isNotNull,
	isNull,
	or,
	sql,
	type SQL
} from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import type { ItemState } from '../../../../core/readiness/findings.ts';
import { atMost, type Connection } from '../client.ts';
import { item, itemModel, itemState, place } from '../schema/index.ts';
import { containing } from './contains.ts';
import { type Counted, countSome } from './count-some.ts';
import { countStock, inState } from './stock.ts';

/** The state on a day, in SQL; stateOn (core/readiness) says the same and a test compares the two. */
export const stateOnDay = (asOf: string) =>
	sql<ItemState>`case when ${itemState.blocked} is not null then ${itemState.blocked}
		when ${asOf}::date > ${itemState.dueOn} then 'overdue'
		when ${asOf}::date >= ${itemState.dueFrom} then 'due' else 'ready' end`;

const columns = (asOf: string) => ({
	id: item.id,
	tag: item.tag,
	model: itemModel.name,
	size: item.size,
	place: place.name,
	state: stateOnDay(asOf),
	dueOn: itemState.dueOn,
	dueWhat: itemState.dueWhat,
	dueDetail: itemState.dueDetail,
	dueLeft: itemState.dueLeft,
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
	/** Key of what it is sorted by, with a minus in front for the other way round; left out: by tag. */
	sort?: string | undefined;
}

/** What the register may be sorted by. */
const SORTS = {
	tag: item.tag,
	model: itemModel.name,
	place: place.name,
	inspected: itemState.lastInspectionOn,
	due: itemState.dueOn
} as const;

/**
 * The order that is asked for; of what is alike there, by tag. Which of those come to a page goes by the index where a
 * day may have thousands, so that no more is read than is shown.
 */
function orderOf(sort = ''): { by: keyof typeof SORTS; order: SQL[]; choice: SQL[] } {
	const back = sort.startsWith('-');
	const key = back ? sort.slice(1) : sort;
	const by = key in SORTS ? (key as keyof typeof SORTS) : 'tag';
	const way = back ? desc : asc;
	const first = way(SORTS[by]);
	const order = by === 'tag' ? [first] : [first, asc(item.tag)];
	const days = by === 'due' || by === 'inspected';
	return { by, order, choice: days ? [first, way(itemState.itemId)] : order };
}

const idsNamed = (db: Connection, table: typeof itemModel | typeof place, like: string) =>
	db.select({ id: table.id }).from(table).where(ilike(table.name, like));

function matching(db: Connection, filter: ItemFilter, asOf: string): SQL | undefined {
	const parts: (SQL | undefined)[] = [];
	if (filter.text) {
		const like = containing(filter.text);
		// Each part by an index of its own: the tag, in capitals always, by trigrams; models and places are few, and
		// known before, as an array, so that their indexes serve.
		parts.push(
			or(
				sql`${item.tag} like ${like.toUpperCase()}`,
				sql`${item.modelId} = any (array(${idsNamed(db, itemModel, like)}))`,
				sql`${item.placeId} = any (array(${idsNamed(db, place, like)}))`
			)
		);
	}
	if (filter.state) parts.push(inState(filter.state, asOf));
	if (filter.placeId) parts.push(eq(item.placeId, filter.placeId));
	if (filter.family) parts.push(eq(item.family, filter.family));
	return and(...parts);
}

/** One page of the register: which they are first, then what is shown of those alone. */
export function listItems(
	db: Connection,
	filter: ItemFilter,
	asOf: string,
	page: { limit: number; offset: number }
) {
	const { by, order, choice } = orderOf(filter.sort);
	const found = db.select({ id: item.id }).from(item).$dynamic();
	if (filter.state || by === 'due' || by === 'inspected')
		found.innerJoin(itemState, eq(itemState.itemId, item.id));
	if (by === 'model') found.innerJoin(itemModel, eq(itemModel.id, item.modelId));
	if (by === 'place') found.innerJoin(place, eq(place.id, item.placeId));
	const chosen = found
		.where(matching(db, filter, asOf))
		.orderBy(...choice)
		.limit(atMost(page.limit))
		.offset(page.offset)
		.as('chosen');
	return rows(db, asOf)
		.innerJoin(chosen, eq(chosen.id, item.id))
		.orderBy(...order);
}

/** What stands ready by itself, by family, model, size and place: how many, and the first by tag. */
export const readyGroups = (db: Connection, asOf: string, families: readonly string[]) =>
	db
		.select({
			family: item.family,
			model: itemModel.name,
			size: item.size,
			place: place.name,
			count: count(),
			tag: sql<string>`min(${item.tag})`
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(inArray(item.family, [...families]), isNull(item.setId), inState('ready', asOf)))
		.groupBy(item.family, itemModel.name, item.size, place.name);

/** What stands ready by itself of some families, at a place or anywhere. */
export const readyItemsOf = (
	db: Connection,
	asOf: string,
	{ families, placeId }: { families: readonly string[]; placeId: string | null },
	most: number
) =>
	db
		.select({ id: item.id, tag: item.tag })
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.where(
			and(
				inArray(item.family, families.length ? [...families] : ['']),
				isNull(item.setId),
				placeId ? eq(item.placeId, placeId) : undefined,
				isNull(itemState.blocked),
				gte(itemState.dueOn, asOf)
			)
		)
		.orderBy(asc(item.tag))
		.limit(atMost(most));

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
			usePattern: item.usePattern,
			set: inSet.tag,
			state: stateOnDay(asOf),
			dueOn: itemState.dueOn
		})
		.from(item)
		.innerJoin(itemState, eq(itemState.itemId, item.id))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(matching(db, filter, asOf))
		.orderBy(asc(item.tag));
}

/** How many items a filter finds. */
export async function countItems(
	db: Connection,
	filter: ItemFilter,
	asOf: string
): Promise<Counted> {
	if (!filter.text) return { total: await countStock(db, filter, asOf), more: false };
	const found = db.select({ id: item.id }).from(item).$dynamic();
	if (filter.state) found.innerJoin(itemState, eq(itemState.itemId, item.id));
	return countSome(db, found.where(matching(db, filter, asOf)));
}

/** Items that are usable and watched, what falls due first before the rest. */
export function itemsWatched(db: Connection, asOf: string, limit: number) {
	return rows(db, asOf)
		.where(
			and(isNull(itemState.blocked), isNotNull(itemState.watchedFor), gte(itemState.dueOn, asOf))
		)
		.orderBy(asc(itemState.dueOn), asc(item.tag))
		.limit(atMost(limit));
}

/** Every item of the register. */
export const allItemIds = async (db: Connection): Promise<string[]> =>
	(await db.select({ id: item.id }).from(item).orderBy(asc(item.id))).map((row) => row.id);
