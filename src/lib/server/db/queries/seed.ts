import { sql } from 'drizzle-orm';
import type { Verdict } from '../../../../core/verdict.ts';
import type { Connection } from '../client.ts';

/** A run that is signed in bulk. */
export interface SignedRun extends Verdict<string> {
	id: string;
	by: string;
	at: Date;
}

/** Signs many runs in one statement. */
export async function markSigned(tx: Connection, runs: SignedRun[]): Promise<void> {
	const values = sql.join(
		runs.map(
			(r) =>
				sql`(${r.id}::uuid, ${r.by}, ${r.at.toISOString()}::timestamptz, ${r.outcome}, ${JSON.stringify(r.reasons)}::jsonb)`
		),
		sql`, `
	);
	await tx.execute(sql`update inspection_run as run
		set signed_by = v.by, signed_at = v.at, outcome = v.outcome, reasons = v.reasons
		from (values ${values}) as v (id, by, at, outcome, reasons) where run.id = v.id`);
}

/** Lets the planner know what is in the tables; after filling them in bulk. */
export const analyze = (db: Connection) => db.execute(sql`analyze`);
