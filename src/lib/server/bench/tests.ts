import { asc, desc, eq, getTableColumns, inArray, isNull } from 'drizzle-orm';
import { type Recipe, recipeOf } from '../../../core/bench/recipes.ts';
import { readTraceCsv, writeTraceCsv } from '../../../core/bench/trace-csv.ts';
import { decodeText } from '../../../core/csv/decode.ts';
import { familiesWhere } from '../../../core/data/family-records.ts';
import type { Connection } from '../db/client.ts';
import { benchTest, item, itemModel, user } from '../db/schema/index.ts';
import { answering, freeOf } from '../instruments/addresses.ts';
import { InstrumentError } from '../instruments/line-client.ts';
import { pressureBenchAt } from '../instruments/pressure-bench.ts';
import { benchExtrasAt, type Misbehaviour } from '../instruments/simulated/pressure-bench.ts';
import { withExtras, withInstrument } from '../instruments/with-instrument.ts';
import type { Context, Reader } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeAfter } from '../kernel/write.ts';
import { loadFacts } from '../readiness/facts.ts';
import { itemByTag } from '../register/items.ts';
import { begin, finish, listen } from './acquire.ts';
import { closeTest, judgeKept, recipesFor, samplesOf } from './judged-test.ts';

const PER_SECOND = 2;

/** Families that the bench can test. */
export const TESTED = familiesWhere((family) => family.bench !== null);

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
			const test = busy.find((t) => t.bench === i + 1) ?? null;
			const about = { bench: i + 1, name: `Pressure bench ${i + 1}`, test };
			return { ...about, ...(await answering(pressureBenchAt(address))) };
		})
	);
}

interface TestInput {
	/** Made by the client. */
	id: string;
	tag: string;
	recipe: string;
	volumeL: number | null;
}

/** The item of a test and the recipe that it goes by; refused where its family takes no such test. */
async function underRecipe(db: Connection, input: TestInput) {
	const { item: found } = await itemByTag(db, input.tag);
	const recipe = recipesFor(found.family).find((r) => r.key === input.recipe);
	if (!recipe) throw new Refusal('invalid', `${found.tag} is not tested by this recipe.`, 'recipe');
	return { found, recipe };
}

const newTest = (
	at: Work,
	input: TestInput,
	of: { itemId: string; recipe: Recipe; instrument: string; bench: number | null }
): typeof benchTest.$inferInsert => ({
	id: input.id,
	itemId: of.itemId,
	recipe: of.recipe.key,
	recipeVersion: of.recipe.version,
	instrument: of.instrument,
	bench: of.bench,
	volumeL: input.volumeL,
	startedBy: at.actor.id,
	startedAt: at.now
});

export interface StartTest extends TestInput {
	/** Which bench of the list; left out, the first that is free. */
	bench?: number | undefined;
	/** Readings a second. */
	perSecond?: number | undefined;
	/** For a simulated bench only. */
	misbehave?: Misbehaviour | undefined;
}

/**
 * Starts a hold on the bench. The readings are listened to from here on, whether or not anyone looks. The bench is
 * taken before it is started: of two who start it at once, one is refused; a bench that then does not start ends the
 * test, to be repeated.
 */
export async function startTest(
	context: Context,
	benches: Benches,
	input: StartTest
): Promise<void> {
	const started = await take(context, benches, input);
	if (!started) return;
	const { bench, address, recipe } = started;
	try {
		const { misbehave } = input;
		if (misbehave)
			await withExtras(benchExtrasAt(address), (extras) => extras.misbehave(misbehave));
		await withInstrument(pressureBenchAt(address), 'Test again.', (instrument) =>
			instrument.start({
				setPa: recipe.setPa,
				seconds: recipe.holdSeconds,
				perSecond: input.perSecond ?? PER_SECOND
			})
		);
		if (!(await begin(context, input.id))) return;
	} catch (error) {
		await finish(context, input.id);
		throw error;
	}
	listen(context, benches, { id: input.id, bench });
}

/** Takes a bench for a test and records it. @returns undefined where this was done before */
async function take(context: Context, benches: Benches, input: StartTest) {
	let taken: { bench: number; address: string; recipe: Recipe } | undefined;
	const asked = { id: input.id, content: { ...input, misbehave: undefined } };
	try {
		await writeAfter(
			context,
			'inspect',
			asked,
			() => reach(context.db, benches, input),
			async (at, { bench, address, instrument }) => {
				const { found, recipe } = await underRecipe(at.tx, input);
				const itemId = found.id;
				await at.tx
					.insert(benchTest)
					.values(newTest(at, input, { itemId, recipe, instrument, bench }));
				at.record('bench.started', {
					of: input.id,
					itemId,
					payload: { recipe: recipe.key, version: recipe.version, instrument, bench }
				});
				taken = { bench, address, recipe };
			}
		);
		return taken;
	} catch (error) {
		if (brokenConstraint(error) === 'bench_test_one_at_a_time') throw busy();
		throw error;
	}
}

/** A free bench that answers, and what it calls itself. */
async function reach(db: Connection, benches: Benches, input: StartTest) {
	if (benches.length === 0)
		throw new Refusal('unavailable', 'No pressure bench is connected.', 'recipe');
	await underRecipe(db, input);
	const bench = await freeBench(db, benches, input.bench);
	const address = benches[bench - 1] ?? '';
	const instrument = pressureBenchAt(address);
	try {
		return { bench, address, instrument: await instrument.identify() };
	} catch (error) {
		if (!(error instanceof InstrumentError)) throw error;
		throw new Refusal('unavailable', error.message, 'recipe');
	} finally {
		instrument.close();
	}
}

const busy = () =>
	new Refusal('conflict', 'The bench is busy with another test. Wait until it has ended.', 'bench');

/** The bench that was asked for, or the first that no test holds. */
async function freeBench(db: Connection, benches: Benches, wanted?: number): Promise<number> {
	if (wanted !== undefined && !benches[wanted - 1])
		throw new Refusal('invalid', 'There is no such bench.', 'bench');
	const taken = await db
		.select({ bench: benchTest.bench })
		.from(benchTest)
		.where(isNull(benchTest.endedAt));
	const number = freeOf(
		benches,
		taken.map((one) => one.bench),
		wanted
	);
	if (number === undefined) throw busy();
	return number;
}

/** Takes in a trace that was made elsewhere, and judges it by a recipe. */
export function importTrace(
	context: Context,
	input: TestInput & { file: string; bytes: Uint8Array }
): Promise<void> {
	return write(context, 'inspect', { id: input.id, content: input }, async (at) => {
		const samples = readTraceCsv(decodeText(input.bytes).text);
		const { found, recipe } = await underRecipe(at.tx, input);
		const instrument = `file: ${input.file}`.slice(0, 120);
		const [test] = await at.tx
			.insert(benchTest)
			.values(newTest(at, input, { itemId: found.id, recipe, instrument, bench: null }))
			.returning();
		if (!test) return;
		at.record('bench.read-in', {
			of: test.id,
			itemId: found.id,
			payload: { recipe: recipe.key, version: recipe.version, file: input.file.slice(0, 120) }
		});
		await closeTest(at, test, found.family, samples);
	});
}

const { trace: _trace, ...withoutTrace } = getTableColumns(benchTest);

/** A test with its readings, and where the item goes over its tests by the same recipe. */
export async function testPage({ db, site }: Reader, id: string) {
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
	if (!row) throw new Refusal('not found', 'There is no such test.');
	const recipe = recipeOf(row.test.recipe, row.test.recipeVersion);
	const { itemId } = row.test;
	const known = (await loadFacts(db, [itemId], site)).get(itemId);
	return {
		...row,
		samples: await samplesOf(db, id),
		recipe,
		trend: known?.trends.find((one) => one.key === row.test.recipe) ?? null,
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
		throw new Refusal('not found', 'There is no such judgement.');
	const other = { ...row.test, recipe: key, recipeVersion: version };
	return judgeKept(other, await samplesOf(db, id));
}

/** Whether a test still runs, and its newest readings. */
export async function testSince(db: Connection, id: string, from: number) {
	const [row] = await db
		.select({ endedAt: benchTest.endedAt })
		.from(benchTest)
		.where(eq(benchTest.id, id));
	if (!row) throw new Refusal('not found', 'There is no such test.');
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
		.where(inArray(item.family, TESTED))
		.orderBy(asc(item.tag))
		.limit(500);
