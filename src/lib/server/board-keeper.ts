import { alarmsOf } from '../../core/air/entry.ts';
import { record } from './audit.ts';
import { boardFeed } from './board.ts';
import { requireRole, type Context } from './context.ts';
import type { Connection, Database } from './db/client.ts';
import { lastHeard, openWearers } from './db/queries/entries.ts';
import { takesTurn } from './db/queries/fills.ts';
import { entryReading } from './db/schema/index.ts';
import { after, raise } from './entries.ts';
import { asFault, Fault } from './errors.ts';
import { InstrumentError } from './instruments/line-client.ts';
import { withInstrument } from './instruments/with-instrument.ts';
import { telemetryAt, type SimulatedWearer, type Telemetry } from './instruments/telemetry.ts';
import { log } from './log.ts';

const TICK_MS = 500;
/** How often a gauge is asked for. */
const TELEMETRY_MS = 5000;
/** Any number that nothing else takes turns by. */
const TURN = 77_012;

/** Address of the receiver for the gauges of wearers. */
export type ReceiverAddress = string | undefined;

/**
 * One round of keeping the board, by one process at a time: hears the gauges of who is in and writes alarms down
 * that have fallen due, whether or not any screen is open.
 * @returns how many readings and alarms were written
 */
export async function keepBoard(
	db: Database,
	receiver: ReceiverAddress,
	now = new Date()
): Promise<{ readings: number; alarms: number }> {
	return db.transaction(async (tx) => {
		if (!(await takesTurn(tx, TURN))) return { readings: 0, alarms: 0 };
		const readings = receiver ? await hear(tx, receiver, now) : 0;
		const { teams } = await boardFeed(db).load();
		let alarms = 0;
		for (const team of teams)
			for (const wearer of team.wearers) {
				if (wearer.endedAt !== null) continue;
				const known = wearer.raised.map((alarm) => alarm.key);
				const due = alarmsOf(wearer.plan, team.turnedAt).filter(
					(alarm) => alarm.at <= now.getTime() && !known.includes(alarm.key)
				);
				for (const alarm of await raise(tx, wearer.id, due, now)) {
					alarms++;
					await record(tx, null, {
						action: 'entry.alarm',
						subject: `entry:${team.id}`,
						payload: { wearer: wearer.wearer, alarm: alarm.kind, due: alarm.dueAt.toISOString() }
					});
				}
			}
		return { readings, alarms };
	});
}

/** Asks the gauges of who is in and has telemetry; one that is not heard gives nothing. */
async function hear(tx: Connection, address: string, now: Date): Promise<number> {
	const wearers = (await openWearers(tx)).flatMap(({ wearer }) =>
		wearer.channel && !wearer.endedAt ? [{ ...wearer, channel: wearer.channel }] : []
	);
	if (wearers.length === 0) return 0;
	const heard = new Map(
		(
			await lastHeard(
				tx,
				wearers.map((wearer) => wearer.id)
			)
		).map((row) => [row.wearerId, row])
	);
	const waiting = wearers.filter((wearer) => {
		const last = heard.get(wearer.id)?.telemetryAt;
		return now.getTime() - new Date(last ?? wearer.startedAt).getTime() >= TELEMETRY_MS;
	});
	if (waiting.length === 0) return 0;
	const telemetry = telemetryAt(address);
	try {
		const bars = await telemetry.read(waiting.map((wearer) => wearer.channel));
		const rows = waiting.flatMap((wearer, i) => {
			const bar = bars[i];
			const before = new Date(heard.get(wearer.id)?.at ?? 0);
			return bar === null || bar === undefined
				? []
				: [
						{
							...{ id: crypto.randomUUID(), wearerId: wearer.id, bar },
							...{ at: after(now, before), by: 'telemetry' as const }
						}
					];
		});
		if (rows.length) await tx.insert(entryReading).values(rows);
		return rows.length;
	} catch (error) {
		// A receiver that is away is seen on the board as telemetry that is lost.
		if (error instanceof InstrumentError) return 0;
		throw error;
	} finally {
		telemetry.close();
	}
}

/** Keeps the board until the process ends. */
export function startKeeper(db: Database, receiver: ReceiverAddress): void {
	let busy = false;
	const tick = async () => {
		if (busy) return;
		busy = true;
		try {
			await keepBoard(db, receiver);
		} catch (error) {
			// The database is away for a while: the next round comes in half a second.
			if (!asFault(error))
				log.error({ what: 'board keeper', stack: error instanceof Error ? error.stack : '' });
		} finally {
			busy = false;
		}
	};
	setInterval(() => void tick(), TICK_MS).unref();
}

async function withReceiver(
	context: Context,
	address: ReceiverAddress,
	work: (telemetry: Telemetry) => Promise<void>
): Promise<void> {
	requireRole(context.actor, 'control entries');
	if (!address) throw new Fault('unavailable', 'No telemetry is connected.');
	await withInstrument(telemetryAt(address), '', work);
}

/** Switches on simulated wearers. A real receiver knows its own and refuses, which changes nothing. */
export async function simulateWearers(
	context: Context,
	address: ReceiverAddress,
	wearers: readonly (SimulatedWearer & { channel: string })[]
): Promise<void> {
	if (!address || wearers.length === 0) return;
	try {
		await withReceiver(context, address, async (telemetry) => {
			for (const { channel, ...wearer } of wearers) await telemetry.simulate(channel, wearer);
		});
	} catch (error) {
		if (!(error instanceof Fault)) throw error;
	}
}

export interface SimulatedChange {
	channel: string;
	lPerMin: number;
	fault: Parameters<Telemetry['simulateFault']>[1];
	speed: number;
}

/** Has a simulated wearer breathe otherwise, or the telemetry fail. */
export const changeWearer = (context: Context, address: ReceiverAddress, to: SimulatedChange) =>
	withReceiver(context, address, async (telemetry) => {
		await telemetry.simulateRate(to.channel, to.lPerMin);
		await telemetry.simulateFault(to.channel, to.fault);
		await telemetry.simulateSpeed(to.speed);
	});
