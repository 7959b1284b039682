import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { holdLease, myLease } from './leases.ts';

/** What a database says of itself. */
export interface DatabaseProbe {
	/** Something was written a moment ago. */
	writable: boolean;
	/** It follows another one, and takes nothing itself. */
	follows: boolean;
	/** Others that follow it. */
	followers: number;
}

const PROBE_MS = 5000;

/** Writes something small, and asks who follows whom. @throws what the database threw where it does not answer */
export async function probeDatabase(db: Connection): Promise<DatabaseProbe> {
	const { rows } = await db.execute<{ follows: boolean; followers: number }>(
		sql`select pg_is_in_recovery() as follows, (select count(*) from pg_stat_replication)::int as followers`
	);
	const { follows = false, followers = 0 } = rows[0] ?? {};
	const writable = !follows && (await holdLease(db, myLease('ready'), PROBE_MS));
	return { writable, follows, followers };
}
