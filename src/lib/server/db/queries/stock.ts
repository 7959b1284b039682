import {
	and,
	asc,
	eq,
	gt,
	gte,
	inArray,
	isNull,
	lt,
	lte,
	ne,
	notInArray,
	or,
	type SQL,
	sql
} from 'drizzle-orm';
import type { ItemState } from '../../../../core/readiness/findings.ts';
import type { Connection } from '../client.ts';
import { itemState, place, placeFloor, stockCount } from '../schema/index.ts';

/** What waits for something else before it is planned. */
export const NOT_PLANNED = ['held', 'in service', 'retired'] as const;

/** Columns that say what state something is in on a day. */
type Stated = Pick<typeof itemState, 'blocked' | 'dueFrom' | 'dueOn'> | typeof stockCount;

/** The state on a day as a condition that an index on the due date can serve. */
export function inState(state: ItemState, asOf: string, of: Stated = itemState): SQL | undefined {
	const free = isNull(of.blocked);
	if (state === 'overdue') return and(free, lt(of.dueOn, asOf));
	if (state === 'due') return and(free, gte(of.dueOn, asOf), lte(of.dueFrom, asOf));
	if (state === 'ready') return and(free, gte(of.dueOn, asOf), gt(of.dueFrom, asOf));
	return eq(sql`${of.blocked}`, state);
}

const total = sql<number>`coalesce(sum(${stockCount.items}), 0)`.mapWith(Number);

async function sumOf(db: Connection, where: SQL | undefined): Promise<number> {
	const [row] = await db.select({ n: total }).from(stockCount).where(where);
	return row?.n ?? 0;
}

/** How many items there are, by what stock is counted by; the items themselves are not read. */
export const countStock = (
	db: Connection,
	filter: {
		family?: string | undefined;
		state?: ItemState | undefined;
		placeId?: string | undefined;
	},
	asOf: string
): Promise<number> =>
	sumOf(
		db,
		and(
			filter.state && inState(filter.state, asOf, stockCount),
			filter.placeId ? eq(stockCount.placeId, filter.placeId) : undefined,
			filter.family ? eq(stockCount.family, filter.family) : undefined
		)
	);

/** How many items of some families something falls due of by a day, what is held, in service or retired left out. */
export const countDueBy = (
	db: Connection,
	until: string,
	families: readonly string[]
): Promise<number> =>
	sumOf(
		db,
		and(
			lte(stockCount.dueOn, until),
			inArray(stockCount.family, [...families]),
			or(isNull(stockCount.blocked), notInArray(stockCount.blocked, [...NOT_PLANNED]))
		)
	);

/** What may be taken on a day. */
const usable = (asOf: string) => and(isNull(stockCount.blocked), gte(stockCount.dueOn, asOf));

/** How many of a family stand at a place and may be taken, what is in a set not counted. */
export const countUsable = (
	db: Connection,
	{ placeId, family }: { placeId: string; family: string },
	asOf: string
): Promise<number> =>
	sumOf(
		db,
		and(
			eq(stockCount.placeId, placeId),
			eq(stockCount.family, family),
			eq(stockCount.inSet, false),
			usable(asOf)
		)
	);

/** How many items belong to each place, what is retired or in a set not counted. */
export const countByPlace = (db: Connection) =>
	db
		.select({ placeId: stockCount.placeId, n: total })
		.from(stockCount)
		.where(
			and(
				eq(stockCount.inSet, false),
				or(isNull(stockCount.blocked), ne(stockCount.blocked, 'retired'))
			)
		)
		.groupBy(stockCount.placeId)
		.having(gt(total, 0));

/** How many items of each family are ready or due, that is, may be taken. */
export const countReady = (db: Connection, asOf: string) =>
	db
		.select({ family: stockCount.family, n: total })
		.from(stockCount)
		.where(usable(asOf))
		.groupBy(stockCount.family)
		.having(gt(total, 0));

/** What stands at each place of each family that a floor is kept of, against that floor; by family and place. What is in a set is no shelf stock. */
export async function statesByPlace(db: Connection, asOf: string) {
	const inEach = (state: ItemState) =>
		sql<number>`coalesce(sum(${stockCount.items}) filter (where ${inState(state, asOf, stockCount)}), 0)`
			.mapWith(Number)
			.as(state);
	// Counted before the places are joined: they are few, what is counted more.
	const counted = db
		.select({
			placeId: stockCount.placeId,
			family: stockCount.family,
			ready: inEach('ready'),
			due: inEach('due'),
			overdue: inEach('overdue'),
			held: inEach('held'),
			'in wash': inEach('in wash'),
			'in service': inEach('in service'),
			issued: inEach('issued')
		})
		.from(stockCount)
		.where(eq(stockCount.inSet, false))
		.groupBy(stockCount.placeId, stockCount.family)
		.as('counted');
	const found = await db
		.select()
		.from(placeFloor)
		.innerJoin(place, eq(place.id, placeFloor.placeId))
		.leftJoin(
			counted,
			and(eq(counted.placeId, placeFloor.placeId), eq(counted.family, placeFloor.family))
		)
		.where(gt(placeFloor.floor, 0))
		.orderBy(asc(place.name));
	return found.map(({ place: { id, name }, place_floor: { family, floor }, counted: has }) => ({
		placeId: id,
		place: name,
		family,
		floor,
		counts: {
			ready: has?.ready ?? 0,
			due: has?.due ?? 0,
			overdue: has?.overdue ?? 0,
			held: has?.held ?? 0,
			'in wash': has?.['in wash'] ?? 0,
			'in service': has?.['in service'] ?? 0,
			issued: has?.issued ?? 0
		}
	}));
}

/** Draws together what was counted since the last time; what is written meanwhile stays beside it. */
export async function gatherStock(db: Connection): Promise<void> {
	await db.execute(sql`
		with gone as (delete from ${stockCount} returning *)
		insert into ${stockCount} (place_id, family, in_set, blocked, due_from, due_on, items)
		select place_id, family, in_set, blocked, due_from, due_on, sum(items)
		from gone group by 1, 2, 3, 4, 5, 6 having sum(items) <> 0`);
}
