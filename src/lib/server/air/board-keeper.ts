import { and, inArray, isNull } from 'drizzle-orm';
import { alarmsOf } from '../../../core/air/entry.ts';
import type { Connection } from '../db/client.ts';
import { lastHeard, openWearers } from '../db/queries/entries.ts';
import { entryReading, entryWearer } from '../db/schema/index.ts';
import { InstrumentError } from '../instruments/line-client.ts';
import { telemetryAt } from '../instruments/telemetry.ts';
import type { Unattended } from '../kernel/context.ts';
import { keepClock } from '../kernel/steady.ts';
import { writeUnattended } from '../kernel/write.ts';
import { boardFeed, type BoardTeam } from './board.ts';
import { after, raise } from './entries.ts';

/** How often a gauge is asked for. */
const TELEMETRY_MS = 5000;

/** Address of the receiver for the gauges of wearers. */
export type ReceiverAddress = string | undefined;

/**
 * One round of keeping the board: hears the gauges of who is in and writes alarms down that have fallen due, whether
 * or not any screen is open. Whoever calls sees to it that one process does so at a time; of two that do, nothing is
 * written twice.
 * @returns how many readings and alarms were written
 */
export async function keepBoard(
	context: Unattended,
	receiver: ReceiverAddress
): Promise<{ readings: number; alarms: number }> {
	const { teams } = await boardFeed(context.db).load();
	const now = await goOnCounting(context, teams);
	const heard = receiver ? await hear(context.db, receiver, now) : [];
	const due = teams.flatMap((team) =>
		team.wearers.flatMap((wearer) => {
			if (wearer.endedAt !== null) return [];
			const known = wearer.raised.map((alarm) => alarm.key);
			const alarms = alarmsOf(wearer.plan, team.turnedAt).filter(
				(alarm) => alarm.at <= now.getTime() && !known.includes(alarm.key)
			);
			return alarms.length ? [{ team, wearer, alarms }] : [];
		})
	);
	if (heard.length === 0 && due.length === 0) return { readings: 0, alarms: 0 };
	return writeUnattended(context, null, async (at) => {
		const still = await stillIn(
			at.tx,
			heard.map((reading) => reading.wearerId)
		);
		const told = heard.filter((reading) => still.has(reading.wearerId));
		if (told.length) await at.tx.insert(entryReading).values(told);
		let raised = 0;
		for (const { team, wearer, alarms } of due)
			for (const alarm of await raise(at.tx, wearer.id, alarms, now)) {
				raised++;
				at.record('entry.alarm', {
					of: team.id,
					payload: { wearer: wearer.wearer, alarm: alarm.kind, due: alarm.dueAt.toISOString() }
				});
			}
		return { readings: told.length, alarms: raised };
	});
}

/** Goes on with the time that the board counts on; a clock that was set while somebody is in is recorded. */
async function goOnCounting(context: Unattended, teams: readonly BoardTeam[]): Promise<Date> {
	const { now, jumpMs } = await keepClock(context, teams.length > 0);
	if (jumpMs === null) return now;
	await writeUnattended(context, null, ({ record }) => {
		for (const { id } of teams)
			record('entry.clock-set', { of: id, payload: { seconds: Math.round(jumpMs / 1000) } });
		return Promise.resolve();
	});
	return now;
}

/** Of some wearers those who have not gone out meanwhile; they do not until the transaction ends. */
async function stillIn(tx: Connection, ids: string[]): Promise<Set<string>> {
	if (ids.length === 0) return new Set();
	const rows = await tx
		.select({ id: entryWearer.id })
		.from(entryWearer)
		.where(and(inArray(entryWearer.id, ids), isNull(entryWearer.endedAt)))
		.for('key share');
	return new Set(rows.map((row) => row.id));
}

/** Asks the gauges of who is in and has telemetry; one that is not heard gives nothing. */
async function hear(
	db: Connection,
	address: string,
	now: Date
): Promise<(typeof entryReading.$inferInsert)[]> {
	const wearers = (await openWearers(db)).flatMap(({ wearer }) =>
		wearer.channel && !wearer.endedAt ? [{ ...wearer, channel: wearer.channel }] : []
	);
	if (wearers.length === 0) return [];
	const ids = wearers.map((wearer) => wearer.id);
	const last = new Map((await lastHeard(db, ids)).map((row) => [row.wearerId, row]));
	const waiting = wearers.filter((wearer) => {
		const at = last.get(wearer.id)?.telemetryAt;
		return now.getTime() - new Date(at ?? wearer.startedAt).getTime() >= TELEMETRY_MS;
	});
	if (waiting.length === 0) return [];
	const telemetry = telemetryAt(address);
	try {
		const bars = await telemetry.read(waiting.map((wearer) => wearer.channel));
		return waiting.flatMap((wearer, i) => {
			const bar = bars[i];
			if (bar === null || bar === undefined) return [];
			const at = after(now, new Date(last.get(wearer.id)?.at ?? 0));
			return [{ id: crypto.randomUUID(), wearerId: wearer.id, bar, at, by: 'telemetry' as const }];
		});
	} catch (error) {
		// A receiver that is away is seen on the board as telemetry that is lost.
		if (error instanceof InstrumentError) return [];
		throw error;
	} finally {
		telemetry.close();
	}
}
