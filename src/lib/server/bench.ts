import { and, asc, desc, eq, gte, inArray, isNull, lt, or } from 'drizzle-orm';
import { decodeText } from '../../core/csv/decode.ts';
import { readTraceCsv, writeTraceCsv } from '../../core/bench/trace-csv.ts';
import { recipeOf, type Recipe } from '../../core/bench/recipes.ts';
import { judgeTrace, type TraceSample } from '../../core/bench/trace.ts';
import { theilSen } from '../../core/stats/theil-sen.ts';
import { InputError } from '../../core/verdict.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection, Database } from './db/client.ts';
import { benchChunk, benchTest, item, itemModel, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { openDefect } from './faults.ts';
import { InstrumentError } from './instruments/line-client.ts';
import { pressureBenchAt, type Misbehaviour } from './instruments/pressure-bench.ts';
import { itemByTag } from './items.ts';
import { log } from './log.ts';
import { rebuildState } from './readiness.ts';
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

/** The instruments that the application knows, each with its state. */
export async function instruments(address: string | undefined) {
	if (!address) return [];
	const bench = pressureBenchAt(address);
	try {
		return [{ name: 'Pressure bench', says: await bench.identify(), live: true }];
	} catch (error) {
		return [{ name: 'Pressure bench', says: (error as Error).message, live: false }];
	} finally {
		bench.close();
	}
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
	instrument: string
): typeof benchTest.$inferInsert => ({
	id: input.id,
	itemId,
	recipe: recipe.key,
	recipeVersion: recipe.version,
	instrument,
	volumeL: input.volumeL,
	startedBy: context.actor.id,
	startedAt: context.now()
});

export interface StartTest extends TestInput {
	/** For the simulated bench only. */
	misbehave?: Misbehaviour | undefined;
}

/** Starts a hold on the bench. The readings are listened to from here on, whether or not anyone looks. */
export async function startTest(
	context: Context,
	site: Site,
	address: string | undefined,
	input: StartTest
): Promise<void> {
	requireRole(context.actor, 'inspect');
	if (!address) throw new Fault('unavailable', 'No pressure bench is connected.', 'recipe');
	const { found, recipe } = await underRecipe(context.db, input);
	const [again] = await context.db.select().from(benchTest).where(eq(benchTest.id, input.id));
	if (again) return;
	const [busy] = await context.db.select().from(benchTest).where(isNull(benchTest.endedAt));
	if (busy)
		throw new Fault('conflict', 'The bench is busy with another test. Wait until it has ended.');
	const bench = pressureBenchAt(address);
	let name: string;
	try {
		name = await bench.identify();
		await bench.start(
			{ setPa: recipe.setPa, seconds: recipe.holdSeconds, perSecond: PER_SECOND },
			input.misbehave
		);
	} catch (error) {
		if (error instanceof InstrumentError) throw new Fault('unavailable', error.message, 'recipe');
		throw error;
	} finally {
		bench.close();
	}
	await inTransaction(context, async (tx) => {
		await tx.insert(benchTest).values(newTest(context, input, found.id, recipe, name));
		await record(tx, context.actor.id, {
			action: 'bench.started',
			subject: `bench:${input.id}`,
			itemId: found.id,
			payload: { recipe: recipe.key, version: recipe.version, instrument: name }
		});
	});
	listen(context.db, site, address, input.id);
}

const listening = new Set<string>();

/** Sees to it that somebody listens to every test that runs: after a restart this process takes over. */
export async function resumeTests(
	db: Database,
	site: Site,
	address: string | undefined
): Promise<void> {
	if (!address) return;
	const open = await db
		.select({ id: benchTest.id })
		.from(benchTest)
		.where(isNull(benchTest.endedAt));
	for (const { id } of open) listen(db, site, address, id);
}

function listen(db: Database, site: Site, address: string, testId: string): void {
	if (listening.has(testId)) return;
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
	try {
		while (await holdLease(db, testId)) {
			try {
				const done = await bench.done();
				const fresh = await bench.fetch(kept);
				heardAt = Date.now();
				if (fresh.length) {
					await db
						.insert(benchChunk)
						.values({ testId, first: kept, samples: fresh })
						.onConflictDoNothing();
					kept += fresh.length;
				} else if (done) return await finish(db, site, testId);
			} catch (error) {
				if (!(error instanceof InstrumentError)) throw error;
				if (Date.now() - heardAt > PATIENCE_MS) return await finish(db, site, testId);
			}
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
		const verdict = judgeKept(row.test, await samplesOf(tx, testId));
		await close(tx, context, site, row.test, row.family, verdict);
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
	verdict: ReturnType<typeof judgeKept>
): Promise<void> {
	await tx
		.update(benchTest)
		.set({
			endedAt: context.now(),
			outcome: verdict.outcome,
			reasons: verdict.reasons,
			leakPaPerMin: verdict.leakPaPerMin,
			startPa: verdict.startPa,
			correctedEndPa: verdict.correctedEndPa
		})
		.where(eq(benchTest.id, test.id));
	if (verdict.outcome === 'fail') {
		await openDefect(tx, context, {
			id: crypto.randomUUID(),
			itemId: test.itemId,
			station: TESTED[family]?.station ?? 'label',
			code: 'LEAK',
			note: verdict.reasons[0]?.text ?? null
		});
		await rebuildState(tx, [test.itemId], site);
	}
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
			.values(newTest(context, input, found.id, recipe, `file: ${input.file}`.slice(0, 120)))
			.returning();
		if (!test) return;
		await tx.insert(benchChunk).values({ testId: test.id, first: 0, samples });
		await close(tx, context, site, test, found.family, judgeKept(test, samples));
	});
}

/** Every reading that was kept, in order. */
export async function samplesOf(db: Connection, testId: string, from = 0): Promise<TraceSample[]> {
	const chunks = await db
		.select()
		.from(benchChunk)
		.where(and(eq(benchChunk.testId, testId), gte(benchChunk.first, from)))
		.orderBy(asc(benchChunk.first));
	return chunks.flatMap((chunk) => chunk.samples);
}

/** A test with its readings, and the earlier tests of the item by the same recipe. */
export async function testPage(db: Connection, id: string) {
	const [row] = await db
		.select({ test: benchTest, tag: item.tag, model: itemModel.name, by: user.name })
		.from(benchTest)
		.innerJoin(item, eq(item.id, benchTest.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(user, eq(user.id, benchTest.startedBy))
		.where(eq(benchTest.id, id));
	if (!row) throw new Fault('not found', 'There is no such test.');
	const earlier = await db
		.select()
		.from(benchTest)
		.where(and(eq(benchTest.itemId, row.test.itemId), eq(benchTest.recipe, row.test.recipe)))
		.orderBy(asc(benchTest.startedAt))
		.limit(60);
	return {
		...row,
		samples: await samplesOf(db, id),
		recipe: recipeOf(row.test.recipe, row.test.recipeVersion),
		trend: trendOf(earlier)
	};
}

const DAY_MS = 86_400_000;

/** The leak of the earlier tests as a robust line over days; null while there are too few to say anything. */
function trendOf(tests: readonly (typeof benchTest.$inferSelect)[]) {
	const points = tests.flatMap((t) =>
		t.outcome && t.outcome !== 'repeat' && t.leakPaPerMin !== null
			? [{ x: t.startedAt.getTime() / DAY_MS, y: t.leakPaPerMin }]
			: []
	);
	const line = points.length >= 4 ? theilSen(points) : undefined;
	return line ? { n: points.length, perDay: line.slope } : null;
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
		.select({ test: benchTest, tag: item.tag, by: user.name })
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
