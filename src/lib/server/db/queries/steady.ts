import { desc, eq, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { steadyClock } from '../schema/index.ts';

/** What is kept of the steady time of a start of a machine; undefined where nothing is yet. */
export async function steadyOf(db: Connection, boot: string) {
	const [row] = await db.select().from(steadyClock).where(eq(steadyClock.boot, boot));
	return row;
}

/** The clock of the database, ms since 1970. */
export async function databaseMs(db: Connection): Promise<number> {
	const { rows } = await db.execute<{ ms: string }>(
		sql`select extract(epoch from clock_timestamp()) * 1000 as ms`
	);
	return Number(rows[0]?.ms);
}

/** How far the clock of the database was ahead of the steady time when that was last looked at; null: never was. */
export async function databaseAheadMs(db: Connection): Promise<number | null> {
	const [row] = await db
		.select({ ms: steadyClock.databaseAheadMs })
		.from(steadyClock)
		.orderBy(desc(steadyClock.changedAt))
		.limit(1);
	return row?.ms ?? null;
}

/** Begins the steady time of a start of a machine. @returns what holds, where another process was first */
export async function beginSteady(db: Connection, boot: string, baseMs: number, at: Date) {
	await db.insert(steadyClock).values({ boot, baseMs, changedAt: at }).onConflictDoNothing();
	return steadyOf(db, boot);
}

/** Keeps how the steady time goes on. */
export const keepSteady = (
	db: Connection,
	boot: string,
	kept: { baseMs: number; saidMs: number; databaseAheadMs: number },
	at: Date
) =>
	db
		.update(steadyClock)
		.set({ ...kept, changedAt: at })
		.where(eq(steadyClock.boot, boot));
