import { and, asc, desc, eq, gt, inArray, isNull } from 'drizzle-orm';
import { alias } from 'drizzle-orm/pg-core';
import { type AirSample, judgeAir } from '../../../core/air/breathing-air.ts';
import { sourceState } from '../../../core/air/source.ts';
import type { Connection } from '../db/client.ts';
import { filledFrom } from '../db/queries/fills.ts';
import {
	airSource,
	airTest,
	airWork,
	cylinder,
	fillBatch,
	item,
	place,
	type SourceBank,
	user
} from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import type { Site } from '../kernel/site.ts';
import { tellAtOnce } from '../notices/urgent.ts';
import { type Work, write } from '../kernel/write.ts';
import { cylindersOf } from './cylinder-facts.ts';
import { sourceFacts, sourceRow } from './source-facts.ts';

export type SourceRow = typeof airSource.$inferSelect;

/** Sources with whether their air may be given out today. */
export async function listSources(context: Reader) {
	const asOf = todayOf(context);
	const [rows, facts] = await Promise.all([
		context.db.select().from(airSource).orderBy(asc(airSource.name)),
		sourceFacts(context.db, context.site.timeZone)
	]);
	return rows.map((source) => ({
		source,
		state: sourceState(facts.get(source.id) ?? { tests: [], workedAt: null }, asOf)
	}));
}

/** A source with its state. @throws Refusal where there is none */
export async function sourceWithState(db: Connection, site: Site, id: string, asOf: string) {
	const source = await sourceRow(db, id);
	if (!source) throw new Refusal('not found', 'There is no such source of air.', 'sourceId');
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
	const asked = { id: input.id, content: input };
	try {
		await write(context, 'keep the register', asked, async (at) => {
			if (input.name.trim() === '') throw new Refusal('invalid', 'Give it a name.', 'name');
			for (const [i, bank] of input.banks.entries())
				if (!(bank.waterVolumeL > 0 && bank.waterVolumeL <= 500))
					throw new Refusal('invalid', `Bank ${i + 1}: litres of water from 0 to 500.`, 'banks');
			await at.tx.insert(airSource).values(input);
			at.record('air-source.added', {
				of: input.id,
				payload: { name: input.name, kind: input.kind, banks: input.banks }
			});
		});
	} catch (error) {
		if (brokenConstraint(error)?.includes('name'))
			throw new Refusal('conflict', `There is a source “${input.name}” already.`, 'name');
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
export function enterAirTest(context: Context, input: AirTestInput): Promise<AirTestResult> {
	return write(context, 'test air', { id: input.id, content: input }, (at) =>
		putAirTest(at, input)
	);
}

/**
 * Puts a test of air down, within a write. One that is older than another of its source changes nothing of what is
 * filled now.
 */
export async function putAirTest(at: Work, input: AirTestInput): Promise<AirTestResult> {
	const { tx, now, site } = at;
	if (input.takenAt > now)
		throw new Refusal('invalid', 'The sample cannot have been taken later than now.', 'takenAt');
	const en = judgeAir('en-12021', input.sample);
	const gradeD = judgeAir('grade-d', input.sample);
	const { outcome } = site.ruleSet === 'uk' ? en : gradeD;
	const source = await sourceRow(tx, input.sourceId);
	if (!source) throw new Refusal('not found', 'There is no such source of air.', 'sourceId');
	const filled = (await filledFrom(tx, source.id)).map((row) => row.itemId);
	const [newer] = await tx
		.select({ id: airTest.id })
		.from(airTest)
		.where(and(eq(airTest.sourceId, source.id), gt(airTest.takenAt, input.takenAt)))
		.limit(1);
	await tx
		.insert(airTest)
		.values({ ...input, en, gradeD, outcome, enteredBy: at.actor.id, enteredAt: now });
	if (outcome !== 'incomplete') {
		if (!newer) await closeBatch(tx, source.id, now);
		at.changed(...filled);
	}
	const held = (await heldOf(tx, site, filled)).filter((one) => one.testId === input.id);
	const tags = held.map((one) => one.tag);
	at.record('air.tested', {
		of: source.id,
		payload: { source: source.name, test: input.id, outcome, held: tags }
	});
	for (const one of outcome === 'fail' ? held : [])
		at.record('air.failed', {
			of: source.id,
			itemId: one.id,
			payload: { source: source.name, test: input.id }
		});
	if (outcome === 'fail' && !newer)
		await tellAtOnce(at, {
			says: `The air of ${source.name} failed its test.`,
			itemIds: held.map((one) => one.id),
			href: `/air/tests/${source.id}`
		});
	return { outcome, held: tags };
}

/** Sources whose air failed a test, the newest test first, each with the cylinders that still hold that air and where they are. */
export async function failedAir({ db, site }: Reader) {
	const tests = await db
		.select({
			id: airTest.id,
			sourceId: airTest.sourceId,
			source: airSource.name,
			at: airTest.takenAt
		})
		.from(airTest)
		.innerJoin(airSource, eq(airSource.id, airTest.sourceId))
		.where(eq(airTest.outcome, 'fail'))
		.orderBy(desc(airTest.takenAt));
	const sources = [...new Set(tests.map(({ sourceId }) => sourceId))];
	const filled = (await Promise.all(sources.map((id) => filledFrom(db, id)))).flat();
	const held = await heldOf(db, site, [...new Set(filled.map(({ itemId }) => itemId))]);
	return tests.map((test) => ({
		...test,
		holds: held.filter(({ testId }) => testId === test.id).map(({ tag, where }) => ({ tag, where }))
	}));
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
			where: row.set ? `on ${row.set}, ${row.place}` : `${row.location ?? 'rack'}, ${row.place}`
		};
	});
}

/** The tags of items with their place and the set that they are on. */
const whereAre = async (db: Connection, ids: string[]) =>
	ids.length === 0
		? []
		: db
				.select({
					id: item.id,
					tag: item.tag,
					place: place.name,
					set: inSet.tag,
					location: cylinder.location
				})
				.from(item)
				.innerJoin(place, eq(place.id, item.placeId))
				.leftJoin(cylinder, eq(cylinder.itemId, item.id))
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
export function noteWork(
	context: Context,
	input: { id: string; sourceId: string; what: string }
): Promise<void> {
	return write(context, 'test air', { id: input.id, content: input }, async (at) => {
		if (input.what.trim() === '') throw new Refusal('invalid', 'Say what was done.', 'what');
		const source = await sourceRow(at.tx, input.sourceId);
		if (!source) throw new Refusal('not found', 'There is no such source of air.', 'sourceId');
		await at.tx.insert(airWork).values({ ...input, doneAt: at.now, notedBy: at.actor.id });
		await closeBatch(at.tx, source.id, at.now);
		at.record('air.worked-on', {
			of: source.id,
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
