import { and, asc, count, eq, ilike, isNull, or } from 'drizzle-orm';
import {
	checkCylinder,
	cylinderDates,
	freshUntil,
	mayFill,
	mayFit,
	RESIDUAL_BAR,
	type CylinderData,
	type CylinderFacts,
	type CylinderLocation
} from '../../core/air/cylinder.ts';
import { holds, rejectCode } from '../../core/data/reject-codes.ts';
import { checkDay, type Day } from '../../core/plan/calendar.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import { cylindersOf } from './cylinder-facts.ts';
import type { Connection } from './db/client.ts';
import { latestFills } from './db/queries/fills.ts';
import { stateOnDay } from './db/queries/items.ts';
import {
	cylinder,
	cylinderTest,
	defect,
	item,
	itemModel,
	itemState,
	place
} from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { itemByTag, PAGE_SIZE } from './items.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';
import { alias } from 'drizzle-orm/pg-core';
import { inArray } from 'drizzle-orm';

const inSet = alias(item, 'in_set');
/** Most that a gauge shows, bar. */
const MOST_BAR = 450;

export interface KnownCylinder {
	row: typeof cylinder.$inferSelect;
	facts: CylinderFacts;
}

/** What is known of cylinders, by item; those whose data are not on record are left out. */
export async function factsOf(
	db: Connection,
	site: Site,
	ids: string[]
): Promise<Map<string, KnownCylinder>> {
	if (ids.length === 0) return new Map();
	const held = await cylindersOf(db, ids, site.timeZone);
	const sets = await db
		.select({ id: item.id, set: inSet.tag })
		.from(item)
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(inArray(item.id, ids));
	const faults = await db
		.select({ itemId: defect.itemId, code: defect.code, severity: defect.severity })
		.from(defect)
		.where(and(inArray(defect.itemId, ids), isNull(defect.closedAt)));
	return new Map(
		[...held].map(([id, { cylinder: row, lastTestOn, testFailed, filledOn, airFailed }]) => [
			id,
			{
				row,
				facts: {
					dates: cylinderDates(row, lastTestOn, site.ruleSet),
					testFailed,
					location: row.location,
					inSet: sets.find((s) => s.id === id)?.set ?? null,
					pressureBar: row.pressureBar,
					lookedInside:
						row.insideAt !== null && (row.emptyAt === null || row.insideAt >= row.emptyAt),
					faults: faults
						.filter((f) => f.itemId === id && holds(f.severity))
						.map((f) => `${f.code}, ${rejectCode(f.code).name}`),
					airFailed,
					freshUntil: freshUntil(filledOn)
				}
			}
		])
	);
}

/** A cylinder by tag with what is known of it. @throws Fault where it is none or has no data */
export async function cylinderByTag(db: Connection, site: Site, tag: string) {
	const { item: found, model } = await itemByTag(db, tag);
	if (found.family !== 'cylinder')
		throw new Fault('invalid', `${found.tag} is no cylinder.`, 'tag');
	const known = (await factsOf(db, site, [found.id])).get(found.id);
	if (!known)
		throw new Fault(
			'conflict',
			`Volume, pressures and dates of ${found.tag} are not on record. Enter them on its page first.`,
			'tag'
		);
	return { item: found, model, ...known };
}

/** Refuses to put a cylinder on a set that may not be put on one. */
export async function checkFitting(
	db: Connection,
	site: Site,
	tag: string,
	asOf: Day
): Promise<void> {
	const { facts } = await cylinderByTag(db, site, tag);
	const verdict = mayFit(facts, asOf);
	if (verdict.outcome === 'refused')
		throw new Fault('conflict', `${tag}: ${verdict.reasons.map((r) => r.text).join(' ')}`, 'tag');
}

export interface CylinderInput extends CylinderData {
	tag: string;
	/** Version that was edited; null: its data are entered for the first time. */
	version: number | null;
}

/** Enters the data of a cylinder, or corrects them. */
export async function saveCylinder(
	context: Context,
	site: Site,
	input: CylinderInput
): Promise<void> {
	requireRole(context.actor, 'keep the register');
	const { tag, version, ...data } = input;
	checkCylinder(data);
	if (data.manufacturedOn > dayAt(context.now(), site.timeZone))
		throw new Fault('invalid', 'It cannot have been made later than today.', 'manufacturedOn');
	await inTransaction(context, async (tx) => {
		const { item: found } = await itemByTag(tx, tag);
		if (found.family !== 'cylinder')
			throw new Fault('invalid', `${found.tag} is no cylinder.`, 'tag');
		const [before] = await tx
			.select()
			.from(cylinder)
			.where(eq(cylinder.itemId, found.id))
			.for('update');
		if ((before?.version ?? null) !== version)
			throw new Fault('conflict', 'Someone else changed it meanwhile. Look at it again.', 'tag');
		if (before)
			await tx
				.update(cylinder)
				.set({ ...data, version: before.version + 1 })
				.where(eq(cylinder.itemId, found.id));
		else await tx.insert(cylinder).values({ itemId: found.id, ...data });
		await record(tx, context.actor.id, {
			action: before ? 'cylinder.corrected' : 'cylinder.entered',
			subject: `item:${found.id}`,
			itemId: found.id,
			payload: { ...data, ...(before ? { before: dataOf(before) } : {}) }
		});
		await rebuildState(tx, [found.id], site);
	});
}

const dataOf = (row: typeof cylinder.$inferSelect): CylinderData => ({
	...{ waterVolumeL: row.waterVolumeL, ratedBar: row.ratedBar, maximumBar: row.maximumBar },
	...{ material: row.material, emptyKg: row.emptyKg, thread: row.thread },
	...{ manufacturedOn: row.manufacturedOn, lifeEndsOn: row.lifeEndsOn, testYears: row.testYears }
});

/** Notes a periodic test of a cylinder with the stamp of the test house. */
export async function noteCylinderTest(
	context: Context,
	site: Site,
	input: { id: string; tag: string; testedOn: Day; passed: boolean; stamp: string }
): Promise<void> {
	requireRole(context.actor, 'keep the register');
	const { id, tag, ...test } = input;
	checkDay(test.testedOn, 'testedOn');
	if (test.testedOn > dayAt(context.now(), site.timeZone))
		throw new Fault('invalid', 'The test cannot have been later than today.', 'testedOn');
	if (test.passed && test.stamp.trim() === '')
		throw new Fault('invalid', 'Write the stamp of the test house.', 'stamp');
	await inTransaction(context, async (tx) => {
		const { item: found, row } = await cylinderByTag(tx, site, tag);
		if (test.testedOn < row.manufacturedOn)
			throw new Fault('invalid', 'That is before it was made.', 'testedOn');
		const taken = await tx
			.insert(cylinderTest)
			.values({
				...{ id, itemId: found.id, ...test },
				...{ notedBy: context.actor.id, notedAt: context.now() }
			})
			.onConflictDoNothing({ target: cylinderTest.id });
		if (!taken.rowCount) return;
		await record(tx, context.actor.id, {
			action: 'cylinder.tested',
			subject: `item:${found.id}`,
			itemId: found.id,
			payload: test
		});
		await rebuildState(tx, [found.id], site);
	});
}

/** Writes down what a gauge showed, in the transaction of what read it. */
export async function putPressure(
	tx: Connection,
	context: Context,
	site: Site,
	row: typeof cylinder.$inferSelect,
	pressureBar: number | null,
	why: string,
	entered?: string
): Promise<void> {
	const at = context.now();
	const empty = pressureBar !== null && pressureBar < RESIDUAL_BAR;
	await tx
		.update(cylinder)
		.set({
			...{ pressureBar, pressureAt: at },
			emptyAt: empty ? (row.emptyAt ?? at) : pressureBar === null ? row.emptyAt : null
		})
		.where(eq(cylinder.itemId, row.itemId));
	await record(tx, context.actor.id, {
		action: 'cylinder.pressure',
		subject: `item:${row.itemId}`,
		itemId: row.itemId,
		payload: { bar: pressureBar, why, ...(entered ? { entered } : {}) }
	});
	await rebuildState(tx, [row.itemId], site);
}

/** Notes what the gauge of a cylinder shows; null: nobody knows any more. */
export async function notePressure(
	context: Context,
	site: Site,
	input: { tag: string; pressureBar: number | null; entered?: string | undefined }
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	const bar = input.pressureBar;
	await inTransaction(context, async (tx) => {
		const { row } = await cylinderByTag(tx, site, input.tag);
		if (bar !== null && !(bar >= 0 && bar <= MOST_BAR))
			throw new Fault('invalid', `From 0 to ${MOST_BAR} bar.`, 'pressureBar');
		if (bar !== null && bar > row.maximumBar)
			throw new Fault(
				'invalid',
				`${bar} bar is above the ${row.maximumBar} bar that it may develop. Let it down, then read again.`,
				'pressureBar'
			);
		await putPressure(tx, context, site, row, bar, 'read by hand', input.entered);
	});
}

/** Notes that a cylinder was looked at inside. */
export async function noteInside(context: Context, site: Site, tag: string): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	await inTransaction(context, async (tx) => {
		const { row } = await cylinderByTag(tx, site, tag);
		await tx
			.update(cylinder)
			.set({ insideAt: context.now() })
			.where(eq(cylinder.itemId, row.itemId));
		await record(tx, context.actor.id, {
			action: 'cylinder.looked-inside',
			subject: `item:${row.itemId}`,
			itemId: row.itemId
		});
	});
}

/** Takes a cylinder to the rack, into the queue of empties or to the test house; off its set where it is on one. */
export async function bringCylinder(
	context: Context,
	site: Site,
	input: { tag: string; to: CylinderLocation }
): Promise<void> {
	requireRole(context.actor, 'fill cylinders');
	await inTransaction(context, async (tx) => {
		const { item: found, row, facts } = await cylinderByTag(tx, site, input.tag);
		if (found.retiredOn)
			throw new Fault(
				'conflict',
				`${found.tag} was taken out of use on ${found.retiredOn}.`,
				'tag'
			);
		if (row.location === input.to && !facts.inSet) return;
		if (facts.inSet)
			await tx
				.update(item)
				.set({ setId: null, version: found.version + 1 })
				.where(eq(item.id, found.id));
		await tx.update(cylinder).set({ location: input.to }).where(eq(cylinder.itemId, found.id));
		for (const itemId of [found.id, ...(found.setId ? [found.setId] : [])])
			await record(tx, context.actor.id, {
				action: 'cylinder.brought',
				subject: `item:${found.id}`,
				itemId,
				payload: { tag: found.tag, from: facts.inSet ?? row.location, to: input.to }
			});
		await rebuildState(tx, [found.id, ...(found.setId ? [found.setId] : [])], site);
	});
}

export interface CylinderFilter {
	text?: string | undefined;
	location?: CylinderLocation | 'set' | undefined;
}

/** One page of the cylinders, by tag, each with what may be done with it. */
export async function listCylinders(
	context: Pick<Context, 'db' | 'now'>,
	site: Site,
	filter: CylinderFilter,
	page = 1,
	limit = PAGE_SIZE
) {
	const { db } = context;
	const asOf = dayAt(context.now(), site.timeZone);
	const like = filter.text ? `%${filter.text.replaceAll(/[%_\\]/g, '\\$&')}%` : null;
	const where = and(
		eq(item.family, 'cylinder'),
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
				...{ id: item.id, tag: item.tag, model: itemModel.name, place: place.name },
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
	const [known, fills] = [await factsOf(db, site, ids), await latestFills(db, ids)];
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
export async function cylinderPage(
	context: Pick<Context, 'db' | 'now'>,
	site: Site,
	itemId: string
) {
	const { db } = context;
	const asOf = dayAt(context.now(), site.timeZone);
	const known = (await factsOf(db, site, [itemId])).get(itemId);
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

/** The cylinders on a set, or the cylinder itself that carries the tag. @throws Fault on an unknown tag */
export async function cylindersOfSet(db: Connection, tag: string) {
	const { item: found } = await itemByTag(db, tag);
	return cylindersOn(db, found.id);
}

/** Cylinders on a set by its id; a cylinder that is worn by itself is its own. */
export async function cylindersOn(db: Connection, setId: string) {
	const rows = await db
		.select({ cylinder })
		.from(cylinder)
		.innerJoin(item, eq(item.id, cylinder.itemId))
		.where(or(eq(item.setId, setId), eq(item.id, setId)));
	return rows.map((row) => row.cylinder);
}
