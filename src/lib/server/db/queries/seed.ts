import { sql } from 'drizzle-orm';
import type { Verdict } from '../../../../core/verdict.ts';
import type { Connection } from '../client.ts';

/** A run that is signed in bulk. */
export interface SignedRun extends Verdict<string> {
	id: string;
	signedBy: string;
	signedAt: Date;
}

/** Signs many runs in one statement. */
export async function markSigned(tx: Connection, runs: readonly SignedRun[]): Promise<void> {
	const values = sql.join(
		runs.map(
			(r) =>
				sql`(${r.id}::uuid, ${r.signedBy}, ${r.signedAt.toISOString()}::timestamptz, ${r.outcome}, ${JSON.stringify(r.reasons)}::jsonb)`
		),
		sql`, `
	);
	await tx.execute(sql`update inspection_run as run
		set signed_by = v.by, signed_at = v.at, outcome = v.outcome, reasons = v.reasons
		from (values ${values}) as v (id, by, at, outcome, reasons) where run.id = v.id`);
}

/** Lets the planner know what is in the tables; after filling them in bulk. */
export const analyze = (db: Connection) => db.execute(sql`analyze`);

/** What is looked at row by row while it comes in, though it was written a moment ago by the same hand. */
const ANSWERS = sql.identifier('inspection_answer');

/**
 * Fills the answers while their guards rest and what they point to is not looked up row by row; both stand again at
 * the end, when everything that was written is held against its keys in one go. For an empty database and its owner.
 */
export async function withoutGuards(tx: Connection, work: () => Promise<void>): Promise<void> {
	const { rows: keys } = await tx.execute<{ name: string; rule: string }>(sql`
		select conname as name, pg_get_constraintdef(oid) as rule from pg_constraint
		where contype = 'f' and conrelid = 'inspection_answer'::regclass order by conname`);
	for (const { name } of keys)
		await tx.execute(sql`alter table ${ANSWERS} drop constraint ${sql.identifier(name)}`);
	await tx.execute(sql`alter table ${ANSWERS} disable trigger user`);
	await work();
	await tx.execute(sql`alter table ${ANSWERS} enable trigger user`);
	for (const { name, rule } of keys)
		await tx.execute(
			sql`alter table ${ANSWERS} add constraint ${sql.identifier(name)} ${sql.raw(rule)}`
		);
}

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

/** Numbers of the pairs that somebody opened, by pair. */
export async function pairNumbers(tx: Connection, openedBy: string): Promise<Map<string, number>> {
	const { rows } = await tx.execute<{ id: string; number: number }>(
		sql`select id, number from filter_pair where opened_by = ${openedBy}`
	);
	return new Map(rows.map(({ id, number }) => [id, number]));
}
