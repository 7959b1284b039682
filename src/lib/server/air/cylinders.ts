import { and, eq, inArray, isNull, or } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import {
	checkCylinder,
	type CylinderData,
	cylinderDates,
	type CylinderFacts,
	type CylinderLocation,
	freshUntil,
	mayFit,
	RESIDUAL_BAR
} from '../../../core/air/cylinder.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { holds, rejectCode } from '../../../core/data/reject-codes.ts';
import type { Where } from '../../../core/custody/custody.ts';
import { checkDay, type Day } from '../../../core/plan/calendar.ts';
import { moveTo, openRow } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import { cylinder, cylinderTest, defect, item } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal, stale } from '../kernel/refusal.ts';
import type { Site } from '../kernel/site.ts';
import { type Work, write } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { cylindersOf } from './cylinder-facts.ts';

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
	const rows = await db
		.select({ row: cylinder, set: inSet.tag })
		.from(cylinder)
		.innerJoin(item, eq(item.id, cylinder.itemId))
		.leftJoin(inSet, eq(inSet.id, item.setId))
		.where(inArray(cylinder.itemId, ids));
	const faults = await db
		.select({ itemId: defect.itemId, code: defect.code, severity: defect.severity })
		.from(defect)
		.where(and(inArray(defect.itemId, ids), isNull(defect.closedAt)));
	return new Map(
		rows.flatMap(({ row, set }) => {
			const known = held.get(row.itemId);
			if (!known) return [];
			const facts: CylinderFacts = {
				dates: cylinderDates(row, known.lastTestOn, site.ruleSet),
				testFailed: known.testFailed,
				location: row.location,
				inSet: set,
				pressureBar: row.pressureBar,
				lookedInside:
					row.insideAt !== null && (row.emptyAt === null || row.insideAt >= row.emptyAt),
				faults: faults
					.filter((f) => f.itemId === row.itemId && holds(f.severity))
					.map((f) => `${f.code}, ${rejectCode(f.code).name}`),
				airFailed: known.airFailed,
				freshUntil: freshUntil(known.filledOn)
			};
			return [[row.itemId, { row, facts }] as const];
		})
	);
}

/** A cylinder by tag with what is known of it. @throws Refusal where it is none or has no data */
export async function cylinderByTag(db: Connection, site: Site, tag: string) {
	const { item: found, model } = await itemByTag(db, tag);
	if (recordOf(found.family).air !== 'cylinder')
		throw new Refusal('invalid', `${found.tag} is no cylinder.`, 'tag');
	const known = (await factsOf(db, site, [found.id])).get(found.id);
	if (!known)
		throw new Refusal(
			'conflict',
			`Volume, pressures and dates of ${found.tag} are not on record. Enter them on its page first.`,
			'tag'
		);
	return { item: found, model, ...known };
}

/** Refuses to put a cylinder on a set that may not be put on one. */
export async function checkFitting({ tx, site, today }: Work, tag: string): Promise<void> {
	const { facts } = await cylinderByTag(tx, site, tag);
	const verdict = mayFit(facts, today);
	if (verdict.outcome === 'refused')
		throw new Refusal('conflict', `${tag}: ${verdict.reasons.map((r) => r.text).join(' ')}`, 'tag');
}

export interface CylinderInput extends CylinderData {
	requestId: string;
	tag: string;
	/** Version that was edited; null: its data are entered for the first time. */
	version: number | null;
}

/** Enters the data of a cylinder, or corrects them. */
export function saveCylinder(context: Context, input: CylinderInput): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the register', { id, content }, (at) => putCylinder(at, content));
}

/** Puts the data of a cylinder down, within a write. */
export async function putCylinder(
	at: Work,
	input: Omit<CylinderInput, 'requestId'>
): Promise<void> {
	const { tx } = at;
	const { tag, version, ...data } = input;
	checkCylinder(data);
	if (data.manufacturedOn > at.today)
		throw new Refusal('invalid', 'It cannot have been made later than today.', 'manufacturedOn');
	const { item: found } = await itemByTag(tx, tag);
	if (recordOf(found.family).air !== 'cylinder')
		throw new Refusal('invalid', `${found.tag} is no cylinder.`, 'tag');
	const [before] = await tx
		.select()
		.from(cylinder)
		.where(eq(cylinder.itemId, found.id))
		.for('update');
	if ((before?.version ?? null) !== version) throw stale('cylinder');
	if (before)
		await tx
			.update(cylinder)
			.set({ ...data, version: before.version + 1 })
			.where(eq(cylinder.itemId, found.id));
	else await tx.insert(cylinder).values({ itemId: found.id, ...data });
	at.changed(found.id);
	at.record(before ? 'cylinder.corrected' : 'cylinder.entered', {
		of: found.id,
		itemId: found.id,
		payload: { ...data, ...(before ? { before: dataOf(before) } : {}) }
	});
}

const dataOf = (row: typeof cylinder.$inferSelect): CylinderData => ({
	waterVolumeL: row.waterVolumeL,
	ratedBar: row.ratedBar,
	maximumBar: row.maximumBar,
	material: row.material,
	emptyKg: row.emptyKg,
	thread: row.thread,
	manufacturedOn: row.manufacturedOn,
	lifeEndsOn: row.lifeEndsOn,
	testYears: row.testYears
});

/** Notes a periodic test of a cylinder with the stamp of the test house. */
export function noteCylinderTest(
	context: Context,
	input: { id: string; tag: string; testedOn: Day; passed: boolean; stamp: string }
): Promise<void> {
	return write(context, 'keep the register', { id: input.id, content: input }, (at) =>
		putCylinderTest(at, input)
	);
}

/** Puts a periodic test of a cylinder down, within a write. */
export async function putCylinderTest(
	at: Work,
	input: { id: string; tag: string; testedOn: Day; passed: boolean; stamp: string }
): Promise<void> {
	const { id, tag, ...test } = input;
	checkDay(test.testedOn, 'testedOn');
	if (test.testedOn > at.today)
		throw new Refusal('invalid', 'The test cannot have been later than today.', 'testedOn');
	if (test.passed && test.stamp.trim() === '')
		throw new Refusal('invalid', 'Write the stamp of the test house.', 'stamp');
	const { item: found, row } = await cylinderByTag(at.tx, at.site, tag);
	if (test.testedOn < row.manufacturedOn)
		throw new Refusal('invalid', 'That is before it was made.', 'testedOn');
	await at.tx
		.insert(cylinderTest)
		.values({ id, itemId: found.id, ...test, notedBy: at.actor.id, notedAt: at.now });
	at.changed(found.id);
	at.record('cylinder.tested', { of: found.id, itemId: found.id, payload: test });
}

/** What a gauge showed, and how it came to be known. */
export interface SeenPressure {
	/** null: nobody knows. */
	bar: number | null;
	why: string;
	/** As it was typed, with its unit. */
	entered?: string | undefined;
}

/** Writes down what a gauge showed, in the write of what read it. */
export async function putPressure(
	at: Work,
	row: typeof cylinder.$inferSelect,
	{ bar, why, entered }: SeenPressure
): Promise<void> {
	const empty = bar !== null && bar < RESIDUAL_BAR;
	await at.tx
		.update(cylinder)
		.set({
			pressureBar: bar,
			pressureAt: at.now,
			emptyAt: empty ? (row.emptyAt ?? at.now) : bar === null ? row.emptyAt : null
		})
		.where(eq(cylinder.itemId, row.itemId));
	at.changed(row.itemId);
	at.record('cylinder.pressure', {
		of: row.itemId,
		itemId: row.itemId,
		payload: { bar, why, entered }
	});
}

/** Notes what the gauge of a cylinder shows; null: nobody knows any more. */
export function notePressure(
	context: Context,
	input: {
		requestId: string;
		tag: string;
		pressureBar: number | null;
		entered?: string | undefined;
	}
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'fill cylinders', { id, content }, async (at) => {
		const bar = input.pressureBar;
		const { row } = await cylinderByTag(at.tx, at.site, input.tag);
		if (bar !== null && !(bar >= 0 && bar <= MOST_BAR))
			throw new Refusal('invalid', `From 0 to ${MOST_BAR} bar.`, 'pressureBar');
		if (bar !== null && bar > row.maximumBar)
			throw new Refusal(
				'invalid',
				`${bar} bar is above the ${row.maximumBar} bar that it may develop. Let it down, then read again.`,
				'pressureBar'
			);
		await putPressure(at, row, { bar, why: 'read by hand', entered: input.entered });
	});
}

/** Notes that a cylinder was looked at inside. */
export function noteInside(
	context: Context,
	input: { requestId: string; tag: string }
): Promise<void> {
	const { requestId: id, tag } = input;
	return write(context, 'fill cylinders', { id, content: { lookInside: tag } }, async (at) => {
		const { row } = await cylinderByTag(at.tx, at.site, tag);
		await at.tx.update(cylinder).set({ insideAt: at.now }).where(eq(cylinder.itemId, row.itemId));
		at.record('cylinder.looked-inside', { of: row.itemId, itemId: row.itemId, payload: {} });
	});
}

/** Where each place of a cylinder is in custody. */
const CUSTODY_OF: Record<CylinderLocation, Where> = {
	rack: 'shelf',
	filling: 'filling',
	'test house': 'test house'
};

/** Writes down where a cylinder is, for the fill room and in custody: the one place that does. */
export async function placeCylinder(at: Work, itemId: string, to: CylinderLocation): Promise<void> {
	await at.tx.update(cylinder).set({ location: to }).where(eq(cylinder.itemId, itemId));
	const { where } = await openRow(at.tx, itemId);
	if (where === CUSTODY_OF[to]) return;
	const [found] = await at.tx.select().from(item).where(eq(item.id, itemId));
	// Whoever stands at the rack with it knows better than the record.
	if (found) await moveTo(at, found, { where: CUSTODY_OF[to] }, 'brought by the fill room');
}

/** Takes a cylinder to the rack, into the queue of empties or to the test house; off its set where it is on one. */
export function bringCylinder(
	context: Context,
	input: { requestId: string; tag: string; to: CylinderLocation }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'fill cylinders', { id, content }, async (at) => {
		const { tx } = at;
		const { item: found, row, facts } = await cylinderByTag(tx, at.site, input.tag);
		refuseRetired(found, 'tag');
		if (row.location === input.to && !facts.inSet) return;
		if (facts.inSet)
			await tx
				.update(item)
				.set({ setId: null, version: found.version + 1 })
				.where(eq(item.id, found.id));
		await placeCylinder(at, found.id, input.to);
		const involved = [found.id, ...(found.setId ? [found.setId] : [])];
		for (const itemId of involved)
			at.record('cylinder.brought', {
				of: found.id,
				itemId,
				payload: { tag: found.tag, from: facts.inSet ?? row.location, to: input.to }
			});
		at.changed(...involved);
	});
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
