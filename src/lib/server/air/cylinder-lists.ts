import { and, asc, count, eq, ilike, inArray, isNull, or } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { type CylinderLocation, mayFill, mayFit } from '../../../core/air/cylinder.ts';
import { familiesWhere } from '../../../core/data/family-records.ts';
import type { Connection } from '../db/client.ts';
import { containing } from '../db/queries/contains.ts';
import { latestFills } from '../db/queries/fills.ts';
import { stateOnDay } from '../db/queries/items.ts';
import { cylinder, cylinderTest, item, itemModel, itemState, place } from '../db/schema/index.ts';
import { type Reader, todayOf } from '../kernel/context.ts';
import { itemByTag, PAGE_SIZE } from '../register/items.ts';
import { cylindersOn, factsOf } from './cylinders.ts';

/** Families that are filled. */
const CYLINDERS = familiesWhere((f) => f.air === 'cylinder');
const inSet = alias(item, 'in_set');

export interface CylinderFilter {
	text?: string | undefined;
	location?: CylinderLocation | 'set' | undefined;
}

/** One page of the cylinders, by tag, each with what may be done with it. */
export async function listCylinders(
	context: Reader,
	filter: CylinderFilter,
	page = 1,
	limit = PAGE_SIZE
) {
	const { db } = context;
	const asOf = todayOf(context);
	const like = filter.text ? containing(filter.text) : null;
	const where = and(
		inArray(item.family, CYLINDERS),
		isNull(item.retiredOn),
		like
			? or(ilike(item.tag, like), ilike(itemModel.name, like), ilike(place.name, like))
			: undefined,
		filter.location === 'set'
			? inArray(item.setId, db.select({ id: inSet.id }).from(inSet))
			: filter.location
				? and(eq(cylinder.location, filter.location), isNull(item.setId))
				: undefined
	);
	const base = () =>
		db
			.select({
				id: item.id,
				tag: item.tag,
				model: itemModel.name,
				place: place.name,
				state: stateOnDay(asOf)
			})
			.from(item)
			.innerJoin(itemState, eq(itemState.itemId, item.id))
			.innerJoin(itemModel, eq(itemModel.id, item.modelId))
			.innerJoin(place, eq(place.id, item.placeId))
			.leftJoin(cylinder, eq(cylinder.itemId, item.id));
	const rows = await base()
		.where(where)
		.orderBy(asc(item.tag))
		.limit(limit)
		.offset((page - 1) * limit);
	const [total] = await db
		.select({ n: count() })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.leftJoin(cylinder, eq(cylinder.itemId, item.id))
		.where(where);
	const ids = rows.map((row) => row.id);
	const [known, fills] = [await factsOf(db, context.site, ids), await latestFills(db, ids)];
	return {
		asOf,
		total: total?.n ?? 0,
		rows: rows.map((row) => {
			const own = known.get(row.id);
			return {
				...row,
				cylinder: own?.row ?? null,
				facts: own?.facts ?? null,
				fill: fills.find((f) => f.itemId === row.id) ?? null,
				mayFill: own ? mayFill(own.facts, asOf) : null
			};
		})
	};
}

/** What the page of a cylinder shows of it; null for one without data. */
export async function cylinderPage(context: Reader, itemId: string) {
	const { db } = context;
	const asOf = todayOf(context);
	const known = (await factsOf(db, context.site, [itemId])).get(itemId);
	if (!known) return null;
	const tests = await db
		.select()
		.from(cylinderTest)
		.where(eq(cylinderTest.itemId, itemId))
		.orderBy(asc(cylinderTest.testedOn));
	const [fill] = await latestFills(db, [itemId]);
	return {
		...known,
		tests,
		fill: fill ?? null,
		mayFill: mayFill(known.facts, asOf),
		mayFit: mayFit(known.facts, asOf)
	};
}

/** The cylinders on a set, or the cylinder itself that carries the tag. @throws Refusal on an unknown tag */
export async function cylindersOfSet(db: Connection, tag: string) {
	const { item: found } = await itemByTag(db, tag);
	return cylindersOn(db, found.id);
}
