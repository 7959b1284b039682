import { and, asc, desc, eq, getTableColumns, gte, inArray, isNull, lt, or } from 'drizzle-orm';
import { decodeText } from '../../core/csv/decode.ts';
import { readTraceCsv, writeTraceCsv } from '../../core/bench/trace-csv.ts';
import { recipeOf, type Recipe } from '../../core/bench/recipes.ts';
import { judgeTrace, type TraceSample } from '../../core/bench/trace.ts';
import { InputError } from '../../core/verdict.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection, Database } from './db/client.ts';
import { benchChunk, benchTest, item, itemModel, user } from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { openDefect } from './faults.ts';
import { InstrumentError } from './instruments/line-client.ts';
import { pressureBenchAt, type Misbehaviour } from './instruments/pressure-bench.ts';
import { itemByTag } from './items.ts';
import { log } from './log.ts';
import { rebuildState } from './readiness.ts';
import { trendsOf } from './trends.ts';
import { packTrace, unpackTrace } from './trace-bytes.ts';
import type { Site } from './site.ts';

/** Which recipes a family is tested by, and the station that a leak is written to. */
const TESTED: Record<string, { recipes: readonly string[]; station: string }> = {
	'full-face': { recipes: ['mask-full-face'], station: 'facepiece' },
	'gas-tight-suit': { recipes: ['suit-en', 'suit-us', 'suit-us-general'], station: 'sleeves' }
};
const PER_SECOND = 2;
const POLL_MS = 200;
const LEASE_MS = 4000;
/** How long an instrument may be away before the test is closed with what came. */
const PATIENCE_MS = 15_000;
const us = crypto.randomUUID();

/** Families that the bench can test. */
export const TESTED_FAMILIES = Object.keys(TESTED);

/** Recipes that an item can be tested by; empty for a family that takes none. */
export const recipesFor = (family: string) =>
	(TESTED[family]?.recipes ?? []).map((key) => recipeOf(key));

/** Addresses of the pressure benches; a test names its bench by the place in this list, from 1. */
export type Benches = readonly string[];

/** The benches that the application knows, each with its state. */
export async function instruments(db: Connection, benches: Benches) {
	const busy = await db
		.select({ bench: benchTest.bench, id: benchTest.id, tag: item.tag })
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.where(isNull(benchTest.endedAt));
	return Promise.all(
		benches.map(async (address, i) => {
			const bench = pressureBenchAt(address);
			const test = busy.find((t) => t.bench === i + 1) ?? null;
			const about = { bench: i + 1, name: `Pressure bench ${i + 1}`, test };
			try {
				return { ...about, says: await bench.identify(), live: true };
			} catch (error) {
				return { ...about, says: (error as Error).message, live: false };
			} finally {
				bench.close();
			}
		})
	);
}

interface TestInput {
	id: string;
	tag: string;
	recipe: string;
	volumeL: number | null;
}

/** The item of a test and the recipe that it goes by; refused where its family takes no such test. */
async function underRecipe(db: Connection, input: TestInput) {
	const { item: found } = await itemByTag(db, input.tag);
	const recipe = recipesFor(found.family).find((r) => r.key === input.recipe);
	if (!recipe) throw new Fault('invalid', `${found.tag} is not tested by this recipe.`, 'recipe');
	return { found, recipe };
}

const newTest = (
	context: Context,
	input: TestInput,
	itemId: string,
	recipe: Recipe,
	instrument: string,
	bench: number | null
): typeof benchTest.$inferInsert => ({
	id: input.id,
	itemId,
	recipe: recipe.key,
	recipeVersion: recipe.version,
	instrument,
	bench,
	volumeL: input.volumeL,
	startedBy: context.actor.id,
	startedAt: context.now()
});

export interface StartTest extends TestInput {
	/** Which bench of the list; left out, the first that is free. */
	bench?: number | undefined;
	/** Readings a second. */
	perSecond?: number | undefined;
	/** For the simulated bench only. */
	misbehave?: Misbehaviour | undefined;
}

/** Starts a hold on the bench. The readings are listened to from here on, whether or not anyone looks. */
export async function startTest(
	context: Context,
	site: Site,
	benches: Benches,
	input: StartTest
): Promise<void> {
	requireRole(context.actor, 'inspect');
	if (benches.length === 0)
		throw new Fault('unavailable', 'No pressure bench is connected.', 'recipe');
	const { found, recipe } = await underRecipe(context.db, input);
	const [again] = await context.db.select().from(benchTest).where(eq(benchTest.id, input.id));
	if (again) return;
	const number = await freeBench(context.db, benches, input.bench);
	const bench = pressureBenchAt(benches[number - 1] ?? '');
	try {
		const name = await bench.identify();
		// The bench is taken before it is started: of two who start it at once, one is refused here.
		await inTransaction(context, async (tx) => {
			await tx.insert(benchTest).values(newTest(context, input, found.id, recipe, name, number));
			await record(tx, context.actor.id, {
				action: 'bench.started',
				subject: `bench:${input.id}`,
				itemId: found.id,
				payload: { recipe: recipe.key, version: recipe.version, instrument: name, bench: number }
			});
			await bench.start(
				{
					setPa: recipe.setPa,
					seconds: recipe.holdSeconds,
					perSecond: input.perSecond ?? PER_SECOND
				},
				input.misbehave
			);
		});
	} catch (error) {
		if (error instanceof InstrumentError) throw new Fault('unavailable', error.message, 'recipe');
		if (brokenConstraint(error) === 'bench_test_one_at_a_time') throw busy();
		throw error;
	} finally {
		bench.close();
	}
	listen(context.db, site, benches, { id: input.id, bench: number });
}

const busy = () =>
	new Fault('conflict', 'The bench is busy with another test. Wait until it has ended.', 'bench');

/** The bench that was asked for, or the first that no test holds. */
async function freeBench(db: Connection, benches: Benches, wanted?: number): Promise<number> {
	if (wanted !== undefined && !benches[wanted - 1])
		throw new Fault('invalid', 'There is no such bench.', 'bench');
	const taken = await db
		.select({ bench: benchTest.bench })
		.from(benchTest)
		.where(isNull(benchTest.endedAt));
	const free = benches.map((_, i) => i + 1).filter((n) => !taken.some((t) => t.bench === n));
	const number = wanted === undefined ? free[0] : free.find((n) => n === wanted);
	if (number === undefined) throw busy();
	return number;
}

const listening = new Set<string>();

/** Sees to it that somebody listens to every test that runs: after a restart this process takes over. */
export async function resumeTests(db: Database, site: Site, benches: Benches): Promise<void> {
	const open = await db
		.select({ id: benchTest.id, bench: benchTest.bench })
		.from(benchTest)
		.where(isNull(benchTest.endedAt));
	for (const test of open) listen(db, site, benches, test);
}

function listen(
	db: Database,
	site: Site,
	benches: Benches,
	{ id: testId, bench }: { id: string; bench: number | null }
): void {
	const address = benches[(bench ?? 0) - 1];
	if (!address || listening.has(testId)) return;
	listening.add(testId);
	void acquire(db, site, address, testId)
		.catch((error: unknown) =>
			log.error({ kind: 'bench', stack: error instanceof Error ? error.stack : String(error) })
		)
		.finally(() => listening.delete(testId));
}

/** Takes readings until the bench is done or gone, keeps each chunk before asking for the next, then judges. */
async function acquire(db: Database, site: Site, address: string, testId: string): Promise<void> {
	const bench = pressureBenchAt(address);
	let heardAt = Date.now();
	let kept = (await samplesOf(db, testId)).length;
	let leaseUntil = 0;
	try {
		for (;;) {
			if (Date.now() > leaseUntil - LEASE_MS / 2) {
				if (!(await holdLease(db, testId))) return;
				leaseUntil = Date.now() + LEASE_MS;
			}
			try {
				const state = await bench.state();
				const fresh = state === 'idle' ? [] : await bench.fetch(kept);
				// A bench that was started anew knows nothing of this test: as good as gone.
				if (state !== 'idle') heardAt = Date.now();
				if (fresh.length) {
					await db
						.insert(benchChunk)
						.values({ testId, first: kept, samples: fresh })
						.onConflictDoNothing();
					kept += fresh.length;
				} else if (state === 'done') return await finish(db, site, testId);
			} catch (error) {
				if (!(error instanceof InstrumentError)) throw error;
			}
			if (Date.now() - heardAt > PATIENCE_MS) return await finish(db, site, testId);
			await new Promise((resolve) => setTimeout(resolve, POLL_MS));
		}
	} finally {
		bench.close();
	}
}

/** One process listens to a test; another takes over when it has not been heard of for a while. */
async function holdLease(db: Database, testId: string): Promise<boolean> {
	const now = new Date();
	const held = await db
		.update(benchTest)
		.set({ leaseBy: us, leaseUntil: new Date(now.getTime() + LEASE_MS) })
		.where(
			and(
				eq(benchTest.id, testId),
				isNull(benchTest.endedAt),
				or(isNull(benchTest.leaseUntil), lt(benchTest.leaseUntil, now), eq(benchTest.leaseBy, us))
			)
		)
		.returning({ id: benchTest.id });
	if (held.length) return true;
	const [row] = await db.select().from(benchTest).where(eq(benchTest.id, testId));
	if (!row || row.endedAt) return false;
	await new Promise((resolve) => setTimeout(resolve, LEASE_MS));
	return holdLease(db, testId);
}

/** Judges a test by what was kept of it. A failed one holds its item at once. */
async function finish(db: Database, site: Site, testId: string): Promise<void> {
	const now = new Date();
	await db.transaction(async (tx) => {
		const [row] = await tx
			.select({ test: benchTest, family: item.family, by: user })
			.from(benchTest)
			.innerJoin(item, eq(item.id, benchTest.itemId))
			.innerJoin(user, eq(user.id, benchTest.startedBy))
			.where(eq(benchTest.id, testId))
			.for('update', { of: benchTest });
		if (!row || row.test.endedAt) return;
		const context: Context = { db, now: () => now, actor: row.by };
		const samples = await samplesOf(tx, testId);
		const verdict = judgeKept(row.test, samples);
		await close(tx, context, site, row.test, row.family, verdict, samples);
	});
}

function judgeKept(
	test: Pick<typeof benchTest.$inferSelect, 'recipe' | 'recipeVersion' | 'volumeL'>,
	samples: readonly TraceSample[]
) {
	const recipe = recipeOf(test.recipe, test.recipeVersion);
	try {
		return judgeTrace(recipe, samples, test.volumeL ? { volumeL: test.volumeL } : {});
	} catch (error) {
		if (!(error instanceof InputError)) throw error;
		return {
			outcome: 'repeat' as const,
			leakPaPerMin: 0,
			startPa: samples[0]?.pa ?? 0,
			correctedEndPa: samples.at(-1)?.pa ?? 0,
			reasons: [{ rule: 'trace.none', text: `${error.message} Test again.`, origin: recipe.origin }]
		};
	}
}

async function close(
	tx: Connection,
	context: Context,
	site: Site,
	test: typeof benchTest.$inferSelect,
	family: string,
	verdict: ReturnType<typeof judgeKept>,
	samples: readonly TraceSample[]
): Promise<void> {
	await tx
		.update(benchTest)
		.set({
			endedAt: context.now(),
			outcome: verdict.outcome,
			reasons: verdict.reasons,
			leakPaPerMin: verdict.leakPaPerMin,
			startPa: verdict.startPa,
			correctedEndPa: verdict.correctedEndPa,
			trace: packTrace(samples)
		})
		.where(eq(benchTest.id, test.id));
	await tx.delete(benchChunk).where(eq(benchChunk.testId, test.id));
	if (verdict.outcome === 'fail') {
		await openDefect(tx, context, {
			id: crypto.randomUUID(),
			itemId: test.itemId,
			station: TESTED[family]?.station ?? 'label',
			code: 'LEAK',
			note: verdict.reasons[0]?.text ?? null
		});
	}
	await rebuildState(tx, [test.itemId], site);
	await record(tx, context.actor.id, {
		action: 'bench.judged',
		subject: `bench:${test.id}`,
		itemId: test.itemId,
		payload: {
			recipe: test.recipe,
			version: test.recipeVersion,
			outcome: verdict.outcome,
			leakPaPerMin: Number(verdict.leakPaPerMin.toFixed(3)),
			why: verdict.reasons[0]?.text ?? ''
		}
	});
}

/** Takes in a trace that was made elsewhere, and judges it by a recipe. */
export async function importTrace(
	context: Context,
	site: Site,
	input: TestInput & { file: string; bytes: Uint8Array }
): Promise<void> {
	requireRole(context.actor, 'inspect');
	const samples = readTraceCsv(decodeText(input.bytes).text);
	const { found, recipe } = await underRecipe(context.db, input);
	await inTransaction(context, async (tx) => {
		const [again] = await tx.select().from(benchTest).where(eq(benchTest.id, input.id));
		if (again) return;
		const [test] = await tx
			.insert(benchTest)
			.values(newTest(context, input, found.id, recipe, `file: ${input.file}`.slice(0, 120), null))
			.returning();
		if (!test) return;
		await close(tx, context, site, test, found.family, judgeKept(test, samples), samples);
	});
}

/** Every reading that was kept, in order. */
export async function samplesOf(db: Connection, testId: string, from = 0): Promise<TraceSample[]> {
	const chunks = await db
		.select()
		.from(benchChunk)
		.where(and(eq(benchChunk.testId, testId), gte(benchChunk.first, from)))
		.orderBy(asc(benchChunk.first));
	if (chunks.length) return chunks.flatMap((chunk) => chunk.samples);
	const [whole] = await db
		.select({ trace: benchTest.trace })
		.from(benchTest)
		.where(eq(benchTest.id, testId));
	return whole?.trace ? unpackTrace(whole.trace).slice(from) : [];
}

const { trace: _trace, ...withoutTrace } = getTableColumns(benchTest);

/** A test with its readings, and where the item goes over its tests by the same recipe. */
export async function testPage(db: Connection, site: Site, id: string) {
	const [row] = await db
		.select({
			test: withoutTrace,
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			by: user.name
		})
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(user, eq(user.id, benchTest.startedBy))
		.where(eq(benchTest.id, id));
	if (!row) throw new Fault('not found', 'There is no such test.');
	const recipe = recipeOf(row.test.recipe, row.test.recipeVersion);
	const own = [{ id: row.test.itemId, holdDropBar: null }];
	const trends = (await trendsOf(db, site.timeZone, own)).get(row.test.itemId);
	return {
		...row,
		samples: await samplesOf(db, id),
		recipe,
		trend: trends?.find((one) => one.key === row.test.recipe) ?? null,
		recipes: recipesFor(row.family)
	};
}

/** What the kept trace of a test comes to under another recipe or version; the record stays as it is. */
export async function judgedBy(db: Connection, id: string, key: string, version: number) {
	const [row] = await db
		.select({ test: benchTest, family: item.family })
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.where(eq(benchTest.id, id));
	const offered = row && recipesFor(row.family).some((r) => r.key === key);
	if (!row || !offered || !row.test.endedAt)
		throw new Fault('not found', 'There is no such judgement.');
	const other = { ...row.test, recipe: key, recipeVersion: version };
	return judgeKept(other, await samplesOf(db, id));
}

/** Whether a test still runs, and its newest readings. */
export async function testSince(db: Connection, id: string, from: number) {
	const [row] = await db
		.select({ endedAt: benchTest.endedAt })
		.from(benchTest)
		.where(eq(benchTest.id, id));
	if (!row) throw new Fault('not found', 'There is no such test.');
	return { ended: row.endedAt !== null, samples: await samplesOf(db, id, from) };
}

/** The readings of a test as CSV. */
export async function traceCsv(db: Connection, id: string): Promise<string> {
	return writeTraceCsv(await samplesOf(db, id));
}

/** Tests on the bench, newest first. */
export const recentTests = (db: Connection, limit = 40) =>
	db
		.select({ test: withoutTrace, tag: item.tag, by: user.name })
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.innerJoin(user, eq(user.id, benchTest.startedBy))
		.orderBy(desc(benchTest.startedAt))
		.limit(limit);

/** Items that the bench can test, by tag. */
export const testable = (db: Connection) =>
	db
		.select({ tag: item.tag, family: item.family })
		.from(item)
		.where(inArray(item.family, TESTED_FAMILIES))
		.orderBy(asc(item.tag))
		.limit(500);
