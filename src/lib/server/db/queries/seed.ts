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

/** Items of some families that take filters of their own and have none open, in the order of their tags. */
export async function masksWithoutFilters(
	tx: Connection,
	families: readonly string[]
): Promise<{ id: string; mount: string }[]> {
	const { rows } = await tx.execute<{ id: string; mount: string }>(sql`
		select i.id, m.mount from item i join item_model m on m.id = i.model_id
		where i.family = any(${sql.param([...families])}::text[]) and m.mount <> 'none' and i.set_id is null
			and not exists (select 1 from filter_pair p where p.item_id = i.id and p.discarded_at is null)
		order by i.tag`);
	return rows;
}
