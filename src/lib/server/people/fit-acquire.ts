import { and, asc, eq, gte, isNotNull, isNull } from 'drizzle-orm';
import type { SessionEnd } from '../../../core/fit/after.ts';
import { fitProtocol } from '../../../core/fit/protocols.ts';
import { type CounterReading, measuredBy, stepsLeft } from '../../../core/fit/sequence.ts';
import type { Connection } from '../db/client.ts';
import { fitChunk, fitSession, wearer } from '../db/schema/index.ts';
import { fitCounterAt } from '../instruments/fit-counter.ts';
import { follow } from '../instruments/follow.ts';
import type { Unattended } from '../kernel/context.ts';
import { type Work, writeUnattended } from '../kernel/write.ts';
import { log, logged } from '../web/log.ts';
import type { Counters } from './fit-counters.ts';

/** How long a counter may take from being taken to the begin of its test. */
const BEGIN_MS = 60_000;
/** How often a counter goes on by itself for what was left out; more than any protocol has exercises. */
const MOST_RUNS = 24;
const listening = new Set<string>();

/** Readings of a test in order, from an index on at which a chunk begins. */
export async function readingsOf(db: Connection, id: string, from = 0): Promise<CounterReading[]> {
	const chunks = await db
		.select({ readings: fitChunk.readings })
		.from(fitChunk)
		.where(and(eq(fitChunk.sessionId, id), gte(fitChunk.first, from)))
		.orderBy(asc(fitChunk.first));
	return chunks.flatMap(({ readings }) => readings);
}

/** Sees to it that somebody listens to every fit test that is under way; one that was never begun is ended. */
export async function resumeFits(context: Unattended, counters: Counters): Promise<void> {
	if (counters.length === 0) return;
	const open = await context.db
		.select({
			id: fitSession.id,
			counter: fitSession.counter,
			startedAt: fitSession.startedAt,
			begunAt: fitSession.begunAt
		})
		.from(fitSession)
		.where(and(isNull(fitSession.endedAt), isNotNull(fitSession.counter)));
	const now = context.now().getTime();
	for (const { id, counter, startedAt, begunAt } of open)
		if (begunAt) listen(context, counters, { id, counter });
		// One from well after now was taken before the clock was set back.
		else if (Math.abs(now - startedAt.getTime()) > BEGIN_MS) await endSession(context, id, 'lost');
}

/** Notes that the counter has obeyed. @returns false where the test was ended meanwhile */
export const begin = (context: Unattended, id: string) =>
	writeUnattended(context, null, async ({ tx, now }) => {
		const begun = await tx
			.update(fitSession)
			.set({ begunAt: now })
			.where(and(eq(fitSession.id, id), isNull(fitSession.endedAt)))
			.returning({ id: fitSession.id });
		return begun.length > 0;
	});

/** Ends a test where nobody did. */
export const endSession = (context: Unattended, id: string, ended: 'whole' | 'lost') =>
	writeUnattended(context, null, (at) => closeSession(at, id, { ended }));

/** Writes down how a test ended, once: one that has ended stays as it did. */
export async function closeSession(
	{ tx, now, record }: Pick<Work, 'tx' | 'now' | 'record'>,
	id: string,
	how: Pick<typeof fitSession.$inferInsert, 'noticedAt'> & { ended: SessionEnd }
): Promise<void> {
	const [closed] = await tx
		.update(fitSession)
		.set({ ...how, endedAt: now })
		.where(and(eq(fitSession.id, id), isNull(fitSession.endedAt)))
		.returning({ wearerId: fitSession.wearerId });
	if (!closed) return;
	record('fit-test.ended', {
		of: closed.wearerId,
		payload: { number: await numberOf(tx, closed.wearerId), ended: how.ended }
	});
}

/** The number that a wearer stands under in the log. */
export async function numberOf(tx: Connection, wearerId: string): Promise<string> {
	const [row] = await tx
		.select({ number: wearer.number })
		.from(wearer)
		.where(eq(wearer.id, wearerId));
	return row?.number ?? '';
}

/** Listens to a test until it has ended, whether or not anyone looks. */
export function listen(
	context: Unattended,
	counters: Counters,
	{ id, counter }: { id: string; counter: number | null }
): void {
	const address = counters[(counter ?? 0) - 1];
	if (!address || listening.has(id)) return;
	listening.add(id);
	void acquire(context, address, id)
		.catch((error: unknown) => log.error({ what: 'fit test', ...logged(error) }))
		.finally(() => listening.delete(id));
}

async function acquire(context: Unattended, address: string, id: string): Promise<void> {
	const { db } = context;
	const [session] = await db.select().from(fitSession).where(eq(fitSession.id, id));
	if (!session?.protocol) return;
	const protocol = fitProtocol(session.protocol);
	const counter = fitCounterAt(address);
	await follow(db, {
		lease: `fit-test:${id}`,
		kept: (await readingsOf(db, id)).length,
		instrument: counter,
		keep: (first, readings) =>
			writeUnattended(context, null, async ({ tx }) => {
				await tx.insert(fitChunk).values({ sessionId: id, first, readings }).onConflictDoNothing();
			}),
		over: async () => {
			const [now] = await db
				.select({ endedAt: fitSession.endedAt })
				.from(fitSession)
				.where(eq(fitSession.id, id));
			return !now || now.endedAt !== null;
		},
		async done() {
			const readings = await readingsOf(db, id);
			const left = stepsLeft(protocol, measuredBy(protocol, readings));
			if (left && (readings.at(-1)?.run ?? 0) < MOST_RUNS) {
				await counter.again(left);
				return false;
			}
			await endSession(context, id, 'whole');
			return true;
		},
		lost: async () => {
			await endSession(context, id, 'lost');
		}
	});
}
