import { asc, desc, eq, isNull } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { afterFit } from '../../../core/fit/after.ts';
import { fitAgent } from '../../../core/fit/agents.ts';
import { nextToTry, passRates } from '../../../core/fit/pass-rate.ts';
import { FIT_PROTOCOLS, fitProtocol, judgeProtocol } from '../../../core/fit/protocols.ts';
import { sequenceOf } from '../../../core/fit/sequence.ts';
import { writeTable } from '../../../core/csv/table.ts';
import type { Connection } from '../db/client.ts';
import { fitModels, fitTallies, openFit, readyMasks, signedSince } from '../db/queries/fit.ts';
import { fitSession, fitTest, item, itemModel, user, wearer } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readingsOf } from './fit-acquire.ts';
import { requireSees } from './wearers.ts';
import { quantitativeNow } from './fit-reading.ts';

type Session = typeof fitSession.$inferSelect;

/** What was measured, judged by every other protocol that asks for no more: of the other pack as well. */
const judgedOtherwise = (session: Session, factors: Readonly<Record<string, number>>) =>
	FIT_PROTOCOLS.filter(
		({ key, masks, exercises, room }) =>
			key !== session.protocol &&
			// What was counted otherwise cannot be judged as if it had not been.
			room === fitProtocol(session.protocol ?? '').room &&
			masks.includes(session.mask) &&
			exercises.every((one) => !one.counted || factors[one.key] !== undefined)
	).map((protocol) => {
		const known = Object.fromEntries(
			Object.entries(factors).filter(([key]) => protocol.exercises.some((one) => one.key === key))
		);
		return { name: protocol.name, ...judgeProtocol(protocol, known, session.mask) };
	});

async function sessionRow(db: Connection, id: string) {
	const [row] = await db
		.select({
			session: fitSession,
			wearer,
			model: itemModel.name,
			family: itemModel.family,
			tag: item.tag,
			by: user.name
		})
		.from(fitSession)
		.innerJoin(wearer, eq(wearer.id, fitSession.wearerId))
		.innerJoin(itemModel, eq(itemModel.id, fitSession.modelId))
		.innerJoin(user, eq(user.id, fitSession.startedBy))
		.leftJoin(item, eq(item.id, fitSession.itemId))
		.where(eq(fitSession.id, id));
	if (!row) throw new Refusal('not found', 'There is no such fit test.');
	return row;
}

/** Everything that the page of a test that is or was made here shows. */
export async function sessionPage(context: Context, id: string) {
	const { db } = context;
	const row = await sessionSeen(context, id);
	const { session } = row;
	const [readings, [signed]] = await Promise.all([
		readingsOf(db, id),
		db.select().from(fitTest).where(eq(fitTest.sessionId, id))
	]);
	const counted = session.protocol ? quantitativeNow(session, readings) : null;
	const passed = counted?.verdict ? counted.verdict.outcome === 'pass' : session.ended === 'whole';
	return {
		...row,
		serverNow: context.now().getTime(),
		readings,
		counted,
		agent: session.agent ? fitAgent(session.agent) : null,
		signed: signed ?? null,
		passed:
			session.endedAt && (counted ? counted.verdict : session.ended !== 'stopped') ? passed : null,
		otherwise: counted && session.endedAt ? judgedOtherwise(session, counted.factors) : [],
		after: signed ? await afterTest(context, session) : null
	};
}

/** What is done after a signed test: anew, another mask by the pass rates of the site and what stands ready, or none that seals. */
async function afterTest(context: Reader, session: Session) {
	const { db } = context;
	const tests = await signedSince(db, session.wearerId, todayOf(context));
	const verdict = afterFit(tests);
	if (verdict.outcome !== 'another mask') return { ...verdict, next: [] };
	const failed = tests.filter(({ passed }) => !passed);
	return { ...verdict, next: await masksToTry(db, session.mask, failed) };
}

/** Masks that may be tried next, the likeliest to pass first, each with how many stand ready. */
async function masksToTry(
	db: Connection,
	mask: Session['mask'],
	failed: readonly { model: string; size: string }[]
) {
	const [ready, tallies] = await Promise.all([readyMasks(db), fitTallies(db)]);
	const here = ready.filter((one) => recordOf(one.family).fit === mask);
	const known = here.map(
		({ model, size }) =>
			tallies.find((one) => one.model === model && one.size === size) ?? {
				model,
				size,
				passed: 0,
				tested: 0
			}
	);
	const others = tallies.filter(
		(one) => !known.some(({ model, size }) => model === one.model && size === one.size)
	);
	return nextToTry(passRates([...known, ...others]), failed)
		.map((rate) => ({
			...rate,
			ready: here.find(({ model, size }) => model === rate.model && size === rate.size)?.ready ?? 0
		}))
		.filter(({ ready: n }) => n > 0)
		.slice(0, 5);
}

/** A test that somebody may look on at. @throws Refusal where there is none, or it is not theirs to see */
async function sessionSeen(context: Context, id: string) {
	const row = await sessionRow(context.db, id);
	requireSees(context, row.wearer);
	return row;
}

/**
 * What is told to whoever looks on at a test: whether it has ended, and its readings from an index on.
 * @throws Refusal where it is not theirs to see
 */
export async function watchSession(context: Context, id: string) {
	await sessionSeen(context, id);
	return (from: number) => sessionSince(context.db, id, from);
}

/** Whether a test has ended, and its readings from an index on. */
export async function sessionSince(db: Connection, id: string, from: number) {
	const [row] = await db
		.select({ endedAt: fitSession.endedAt })
		.from(fitSession)
		.where(eq(fitSession.id, id));
	return { ended: row?.endedAt !== null, fresh: await readingsOf(db, id, from) };
}

/** The raw readings of a test as CSV, as they came. */
export async function readingsCsv(context: Context, id: string): Promise<string> {
	const { session } = await sessionSeen(context, id);
	if (!session.protocol) throw new Refusal('not found', 'This test was made without a counter.');
	const steps = sequenceOf(fitProtocol(session.protocol));
	return writeTable(await readingsOf(context.db, id), [
		{ name: 's', write: ({ s }) => s },
		{ name: 'run', write: ({ run }) => run },
		{ name: 'line', write: ({ step }) => steps[step]?.line ?? '' },
		{ name: 'exercise', write: ({ step }) => steps[step]?.exercise ?? '' },
		{ name: 'particles per cm3', write: ({ perCm3 }) => perCm3 },
		{ name: 'flow', write: ({ flow }) => flow }
	]);
}

/** Pass rates of the site by model and size. */
export const ratesHere = async (db: Connection) => passRates(await fitTallies(db));

/** Tests that are under way, the newest first. */
export const openSessions = (db: Connection) =>
	db
		.select({ session: fitSession, name: wearer.name, model: itemModel.name })
		.from(fitSession)
		.innerJoin(wearer, eq(wearer.id, fitSession.wearerId))
		.innerJoin(itemModel, eq(itemModel.id, fitSession.modelId))
		.where(isNull(fitSession.endedAt))
		.orderBy(desc(fitSession.startedAt), asc(fitSession.id))
		.limit(50);

/** The last fit tests that were signed, the newest first. */
export const recentFitTests = (db: Connection) =>
	db
		.select({
			id: fitTest.id,
			sessionId: fitTest.sessionId,
			wearerId: fitTest.wearerId,
			name: wearer.name,
			model: itemModel.name,
			size: fitTest.size,
			method: fitTest.method,
			overall: fitTest.overall,
			passed: fitTest.passed,
			testedOn: fitTest.testedOn,
			fromPaper: fitTest.fromPaper
		})
		.from(fitTest)
		.innerJoin(wearer, eq(wearer.id, fitTest.wearerId))
		.innerJoin(itemModel, eq(itemModel.id, fitTest.modelId))
		.orderBy(desc(fitTest.testedOn), desc(fitTest.signedAt))
		.limit(500);

/** Id of the test of a wearer that is under way; null where none is. */
export const openTestOf = async (db: Connection, wearerId: string): Promise<string | null> =>
	(await openFit(db, wearerId))?.id ?? null;

/** Models in use, by name. */
export const modelsInUse = (db: Connection) => fitModels(db);
