import { and, asc, desc, eq, inArray, isNull } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { judgeAir, type AirSample } from '../../core/air/breathing-air.ts';
import { sourceState } from '../../core/air/source.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import { cylindersOf, sourceFacts, sourceRow } from './cylinder-facts.ts';
import type { Connection } from './db/client.ts';
import { filledFrom } from './db/queries/fills.ts';
import {
	airSource,
	airTest,
	airWork,
	fillBatch,
	item,
	place,
	user,
	type SourceBank
} from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

export type SourceRow = typeof airSource.$inferSelect;

/** Sources with whether their air may be given out today. */
export async function listSources(context: Pick<Context, 'db' | 'now'>, site: Site) {
	const asOf = dayAt(context.now(), site.timeZone);
	const [rows, facts] = await Promise.all([
		context.db.select().from(airSource).orderBy(asc(airSource.name)),
		sourceFacts(context.db, site.timeZone)
	]);
	return rows.map((source) => ({
		source,
		state: sourceState(facts.get(source.id) ?? { tests: [], workedAt: null }, asOf)
	}));
}

/** A source with its state. @throws Fault where there is none */
export async function sourceWithState(db: Connection, site: Site, id: string, asOf: string) {
	const source = await sourceRow(db, id);
	if (!source) throw new Fault('not found', 'There is no such source of air.', 'sourceId');
	const facts = (await sourceFacts(db, site.timeZone, [id])).get(id);
	return { source, state: sourceState(facts ?? { tests: [], workedAt: null }, asOf) };
}

export interface SourceInput {
	id: string;
	name: string;
	kind: SourceRow['kind'];
	oilLubricated: boolean;
	fills: boolean;
	banks: SourceBank[];
}

/** Adds a source of air. */
export async function addSource(context: Context, input: SourceInput): Promise<void> {
	requireRole(context.actor, 'keep the register');
	if (input.name.trim() === '') throw new Fault('invalid', 'Give it a name.', 'name');
	for (const [i, bank] of input.banks.entries())
		if (!(bank.waterVolumeL > 0 && bank.waterVolumeL <= 500))
			throw new Fault('invalid', `Bank ${i + 1}: litres of water from 0 to 500.`, 'banks');
	try {
		await inTransaction(context, async (tx) => {
			const taken = await tx.insert(airSource).values(input).onConflictDoNothing({
				target: airSource.id
			});
			if (taken.rowCount)
				await record(tx, context.actor.id, {
					action: 'air-source.added',
					subject: `air-source:${input.id}`,
					payload: { name: input.name, kind: input.kind, banks: input.banks }
				});
		});
	} catch (error) {
		if (brokenConstraint(error)?.includes('name'))
			throw new Fault('conflict', `There is a source “${input.name}” already.`, 'name');
		throw error;
	}
}

export interface AirTestInput {
	/** Made by the client. */
	id: string;
	sourceId: string;
	takenAt: Date;
	laboratory: string;
	sample: AirSample;
}

export interface AirTestResult {
	outcome: 'pass' | 'fail' | 'incomplete';
	/** Tags of the cylinders that it holds. */
	held: string[];
}

/**
 * Enters a test of the air of a source, judged by both standards; that of the site decides. A failed one holds every
 * cylinder that was filled since the last good one, and ends the batch that is open.
 */
export async function enterAirTest(
	context: Context,
	site: Site,
	input: AirTestInput
): Promise<AirTestResult> {
	requireRole(context.actor, 'test air');
	const now = context.now();
	if (input.takenAt > now)
		throw new Fault('invalid', 'The sample cannot have been taken later than now.', 'takenAt');
	const en = judgeAir('en-12021', input.sample);
	const gradeD = judgeAir('grade-d', input.sample);
	const { outcome } = site.ruleSet === 'uk' ? en : gradeD;
	return inTransaction(context, async (tx) => {
		const source = await sourceRow(tx, input.sourceId);
		if (!source) throw new Fault('not found', 'There is no such source of air.', 'sourceId');
		const filled = (await filledFrom(tx, source.id)).map((row) => row.itemId);
		const taken = await tx
			.insert(airTest)
			.values({ ...input, en, gradeD, outcome, enteredBy: context.actor.id, enteredAt: now })
			.onConflictDoNothing({ target: airTest.id });
		if (taken.rowCount && outcome !== 'incomplete') {
			await closeBatch(tx, source.id, now);
			await rebuildState(tx, filled, site);
		}
		const held = (await heldOf(tx, site, filled)).filter((one) => one.testId === input.id);
		if (taken.rowCount) {
			await record(tx, context.actor.id, {
				action: 'air.tested',
				subject: `air-source:${source.id}`,
				payload: { source: source.name, test: input.id, outcome, held: held.map((h) => h.tag) }
			});
			for (const one of outcome === 'fail' ? held : [])
				await record(tx, context.actor.id, {
					action: 'air.failed',
					subject: `air-source:${source.id}`,
					itemId: one.id,
					payload: { source: source.name, test: input.id }
				});
		}
		return { outcome, held: held.map((h) => h.tag) };
	});
}

const inSet = alias(item, 'in_set');

/** Of some cylinders, those whose air failed a test, with which and where they are. */
async function heldOf(db: Connection, site: Site, itemIds: string[]) {
	const cylinders = await cylindersOf(db, itemIds, site.timeZone);
	const failed = new Map(
		[...cylinders].flatMap(([id, held]) => (held.airFailed ? [[id, held] as const] : []))
	);
	const rows = await whereAre(db, [...failed.keys()]);
	return rows.map((row) => {
		const held = failed.get(row.id);
		return {
			...row,
			testId: held?.airFailed?.testId,
			where: row.set
				? `on ${row.set}, ${row.place}`
				: `${held?.cylinder.location ?? 'rack'}, ${row.place}`
		};
	});
}

/** The tags of items with their place and the set that they are on. */
const whereAre = async (db: Connection, ids: string[]) =>
	ids.length === 0
		? []
		: db
				.select({ id: item.id, tag: item.tag, place: place.name, set: inSet.tag })
				.from(item)
				.innerJoin(place, eq(place.id, item.placeId))
				.leftJoin(inSet, eq(inSet.id, item.setId))
				.where(inArray(item.id, ids))
				.orderBy(asc(item.tag));

/** Ends the batch of a source that is open, where one is. */
const closeBatch = (tx: Connection, sourceId: string, now: Date) =>
	tx
		.update(fillBatch)
		.set({ closedAt: now })
		.where(and(eq(fillBatch.sourceId, sourceId), isNull(fillBatch.closedAt)));

/** Notes work on a source: its air counts as untested from then on. */
export async function noteWork(
	context: Context,
	input: { id: string; sourceId: string; what: string }
): Promise<void> {
	requireRole(context.actor, 'test air');
	if (input.what.trim() === '') throw new Fault('invalid', 'Say what was done.', 'what');
	await inTransaction(context, async (tx) => {
		const source = await sourceRow(tx, input.sourceId);
		if (!source) throw new Fault('not found', 'There is no such source of air.', 'sourceId');
		const now = context.now();
		const taken = await tx
			.insert(airWork)
			.values({ ...input, doneAt: now, notedBy: context.actor.id })
			.onConflictDoNothing();
		if (!taken.rowCount) return;
		await closeBatch(tx, source.id, now);
		await record(tx, context.actor.id, {
			action: 'air.worked-on',
			subject: `air-source:${source.id}`,
			payload: { source: source.name, what: input.what }
		});
	});
}

/** Tests of a source, newest first, each with the cylinders that it holds now. */
export async function testsOf(db: Connection, site: Site, sourceId: string) {
	const rows = await db
		.select({ test: airTest, by: user.name })
		.from(airTest)
		.innerJoin(user, eq(user.id, airTest.enteredBy))
		.where(eq(airTest.sourceId, sourceId))
		.orderBy(desc(airTest.takenAt))
		.limit(20);
	const filled = (await filledFrom(db, sourceId)).map((row) => row.itemId);
	const held = await heldOf(db, site, filled);
	const works = await db
		.select({ work: airWork, by: user.name })
		.from(airWork)
		.innerJoin(user, eq(user.id, airWork.notedBy))
		.where(eq(airWork.sourceId, sourceId))
		.orderBy(desc(airWork.doneAt))
		.limit(10);
	return {
		works,
		tests: rows.map(({ test, by }) => ({
			...test,
			by,
			held: held.filter((one) => one.testId === test.id)
		}))
	};
}
