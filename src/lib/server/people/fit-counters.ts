import { isNull, eq, and } from 'drizzle-orm';
import { judgeAmbient } from '../../../core/fit/fit-factor.ts';
import type { Connection } from '../db/client.ts';
import { fitSession, wearer } from '../db/schema/index.ts';
import { answering, freeOf } from '../instruments/addresses.ts';
import { fitCounterAt } from '../instruments/fit-counter.ts';
import { counterExtrasAt, type SimulatedFace } from '../instruments/simulated/fit-counter.ts';
import { withExtras, withInstrument } from '../instruments/with-instrument.ts';
import { Refusal } from '../kernel/refusal.ts';

/** Addresses of the particle counters; a test names its counter by the place in this list, from 1. */
export type Counters = readonly string[];

/** The counters that the application knows, each with who is before it. */
export async function fitCounters(db: Connection, counters: Counters) {
	const busy = await db
		.select({ counter: fitSession.counter, id: fitSession.id, name: wearer.name })
		.from(fitSession)
		.innerJoin(wearer, eq(wearer.id, fitSession.wearerId))
		.where(isNull(fitSession.endedAt));
	return Promise.all(
		counters.map(async (address, i) => {
			const test = busy.find((one) => one.counter === i + 1) ?? null;
			return { counter: i + 1, test, ...(await answering(fitCounterAt(address))) };
		})
	);
}

/** A counter that a test may begin on. */
export interface CounterReached {
	counter: number;
	address: string;
	instrument: string;
}

export const counterBusy = () =>
	new Refusal(
		'conflict',
		'A test is under way on this counter. Wait until it has ended, or take another one.',
		'counter'
	);

/**
 * A free counter that answers, in a room with enough to count.
 * @param face what a simulated one has before it
 */
export async function reachCounter(
	db: Connection,
	counters: Counters,
	wanted: number | undefined,
	face: SimulatedFace | undefined
): Promise<CounterReached> {
	if (counters.length === 0)
		throw new Refusal(
			'unavailable',
			'No particle counter is connected: type the test in from its sheet.',
			'counter'
		);
	const counter = await freeCounter(db, counters, wanted);
	const address = counters[counter - 1] ?? '';
	if (face) await withExtras(counterExtrasAt(address), (extras) => extras.face(face));
	return withInstrument(fitCounterAt(address), 'Look at its cable and its power.', async (one) => {
		const instrument = await one.identify();
		const room = judgeAmbient(await one.room());
		if (room.outcome === 'too few')
			throw new Refusal('conflict', room.reasons[0]?.text ?? 'Too few particles.', 'counter');
		return { counter, address, instrument };
	});
}

/** The counter that was asked for, or the first that no test holds. */
async function freeCounter(
	db: Connection,
	counters: Counters,
	wanted: number | undefined
): Promise<number> {
	if (wanted !== undefined && !counters[wanted - 1])
		throw new Refusal('invalid', 'There is no such counter.', 'counter');
	const taken = await db
		.select({ counter: fitSession.counter })
		.from(fitSession)
		.where(and(isNull(fitSession.endedAt), eq(fitSession.method, 'quantitative')));
	const number = freeOf(
		counters,
		taken.map((one) => one.counter),
		wanted
	);
	if (number === undefined) throw counterBusy();
	return number;
}

/** Has the simulated counter of a test behave otherwise: plugged in again, its tube cleared. */
export async function behaveSimulated(
	db: Connection,
	counters: Counters,
	sessionId: string,
	fault: SimulatedFace['fault']
): Promise<void> {
	const [row] = await db
		.select({ counter: fitSession.counter })
		.from(fitSession)
		.where(eq(fitSession.id, sessionId));
	const address = counters[(row?.counter ?? 0) - 1];
	if (!address) throw new Refusal('unavailable', 'This test has no counter.');
	await withInstrument(counterExtrasAt(address), '', (extras) => extras.behave(fault));
}
