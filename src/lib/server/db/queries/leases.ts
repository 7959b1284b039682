import { and, eq, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { lease } from '../schema/index.ts';

/** What this process signs its leases with. */
const holder = crypto.randomUUID();

/**
 * Takes or renews a lease on something that one process does at a time, by the clock of the database.
 * @returns whether it is ours now; one that was not renewed in time is taken over
 */
export async function holdLease(db: Connection, name: string, ms: number): Promise<boolean> {
	const until = sql`clock_timestamp() + ${`${ms} milliseconds`}::interval`;
	const held = await db
		.insert(lease)
		.values({ name, holder, until: until as unknown as Date })
		.onConflictDoUpdate({
			target: lease.name,
			set: { holder, until },
			// One that lasts longer than any is from before the clock was set back.
			setWhere: sql`${lease.holder} = ${holder} or ${lease.until} not between clock_timestamp() and ${until}`
		})
		.returning({ name: lease.name });
	return held.length > 0;
}

/** A name for a lease that no other process wants. */
export const myLease = (what: string): string => `${what}:${holder}`;

/** Lets go of a lease of this process. */
export const dropLease = (db: Connection, name: string) =>
	db.delete(lease).where(and(eq(lease.name, name), eq(lease.holder, holder)));

/** Forgets leases that nobody has held for a day. */
export const forgetLeases = (db: Connection) =>
	db.delete(lease).where(sql`${lease.until} < clock_timestamp() - interval '1 day'`);
