import { readFileSync } from 'node:fs';
import { type Clocks, goOnSteadily, JUMP_MS, setAheadMs } from '../../../core/air/steady-time.ts';
import type { Connection } from '../db/client.ts';
import type { Work } from './write.ts';
import {
	beginSteady,
	databaseAheadMs,
	databaseMs,
	keepSteady,
	steadyOf
} from '../db/queries/steady.ts';

/** A machine with its clocks. */
export interface Machine {
	/** Which start of it this is: its monotonic clock goes from one to the next. */
	boot: string;
	clocks: () => Clocks;
}

/** What the kernel names this start of the machine; another system gives each process a time of its own. */
function bootName(): string {
	try {
		return readFileSync('/proc/sys/kernel/random/boot_id', 'utf8').trim();
	} catch {
		return crypto.randomUUID();
	}
}

export const thisMachine: Machine = {
	boot: bootName(),
	// Of all processes of a machine the same.
	clocks: () => ({ wallMs: Date.now(), monoMs: Number(process.hrtime.bigint() / 1_000_000n) })
};

/** What has to be known to tell the steady time. */
interface Asked {
	db: Connection;
	now: () => Date;
	machine?: Machine | undefined;
}

async function standing({ db, now, machine = thisMachine }: Asked) {
	const known = await steadyOf(db, machine.boot);
	if (known) return known;
	const { wallMs, monoMs } = machine.clocks();
	const ahead = await databaseAheadMs(db);
	// Another start or another machine was here: the database is what both know.
	const steadyMs = ahead === null ? wallMs : (await databaseMs(db)) - ahead;
	const base = Math.abs(steadyMs - wallMs) < JUMP_MS ? wallMs : steadyMs;
	const begun = await beginSteady(db, machine.boot, base - monoMs, now());
	if (!begun) throw new Error('The steady time was not kept.');
	return begun;
}

/** The steady time, and how far the clock of this machine was set ahead of it, ms. */
export async function steadyTime(asked: Asked): Promise<{ now: Date; aheadMs: number }> {
	const { baseMs } = await standing(asked);
	return timeBy(asked, baseMs);
}

function timeBy({ now, machine = thisMachine }: Asked, baseMs: number) {
	const aheadMs = setAheadMs(machine.clocks(), baseMs);
	return { now: new Date(now().getTime() - aheadMs), aheadMs };
}

/** The time that people who are in, and holds that run, are counted on: it goes on evenly though the clock be set. */
export const steadyNow = async (asked: Asked): Promise<Date> => (await steadyTime(asked)).now;

/** The steady time of a write. */
export const steadyAt = ({
	tx,
	now,
	machine
}: Pick<Work, 'tx' | 'now' | 'machine'>): Promise<Date> =>
	steadyNow({ db: tx, now: () => now, machine });

/**
 * Goes on with the steady time; called every second or so by whoever keeps the board.
 * @param counted whether anybody is in
 * @returns the steady time, and a jump of the clock that is to be said now, ms; null for none
 */
export async function keepClock(
	asked: Asked,
	counted: boolean
): Promise<{ now: Date; jumpMs: number | null }> {
	const { db, now, machine = thisMachine } = asked;
	const kept = await standing(asked);
	const clocks = machine.clocks();
	const next = goOnSteadily(clocks, kept, counted);
	const ahead = (await databaseMs(db)) - clocks.monoMs - next.baseMs;
	const moved = Math.abs(ahead - kept.databaseAheadMs) >= JUMP_MS / 2;
	if (next.baseMs !== kept.baseMs || next.saidMs !== kept.saidMs || moved) {
		const { baseMs, saidMs } = next;
		await keepSteady(db, machine.boot, { baseMs, saidMs, databaseAheadMs: ahead }, now());
	}
	return { now: timeBy(asked, next.baseMs).now, jumpMs: next.sayMs };
}
