import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';

/** How many lie in a batch, beside its row. */
export const inBatch = sql<number>`(select count(*) from wash_batch_item i
	where i.batch_id = wash_batch.id and i.taken_out_at is null)`.mapWith(Number);

/** What is on something since its last good wash that wants a bath of its own; null: nothing. */
export async function lastDirtOf(db: Connection, itemId: string): Promise<string | null> {
	const { rows } = await db.execute<{ dirt: string | null }>(sql`
		select r.contaminated_with[1] as dirt from item_return r
		where r.item_id = ${itemId} and r.own_bath and r.returned_at > coalesce((
			select max(b.ended_at) from wash_batch b join wash_batch_item i on i.batch_id = b.id
			where i.item_id = r.item_id and i.taken_out_at is null and b.outcome = 'pass'), '-infinity')
		order by r.returned_at desc limit 1`);
	return rows[0]?.dirt ?? null;
}

/** When something was last washed whole, in which batch, and how often it was wiped since. */
export async function careOf(db: Connection, itemId: string) {
	const { rows } = await db.execute<{
		at: string | null;
		number: number | null;
		batchId: string | null;
		agent: string | null;
		by: string | null;
		wipes: number;
	}>(sql`
		with last as (
			select b.ended_at, b.number, b.id, b.agent, u.name from wash_batch b
			join wash_batch_item i on i.batch_id = b.id left join "user" u on u.id = b.ended_by
			where i.item_id = ${itemId} and i.taken_out_at is null and b.ended_at is not null
				and (b.outcome = 'pass' or b.decision = 'inspect discs')
			order by b.ended_at desc limit 1)
		select l.ended_at as at, l.number, l.id as "batchId", l.agent, l.name as by,
			(select count(*)::int from item_wipe w where w.item_id = ${itemId}
				and w.wiped_at > coalesce(l.ended_at, '-infinity')) as wipes
		from (select 1) one left join last l on true`);
	const [row] = rows;
	return {
		washedAt: row?.at ? new Date(row.at) : null,
		batch: row?.number ?? null,
		batchId: row?.batchId ?? null,
		agent: row?.agent ?? null,
		by: row?.by ?? null,
		wipes: row?.wipes ?? 0
	};
}

/** How many were looked over and found good on a day of the site. */
export async function readyAgainOn(db: Connection, day: string, timeZone: string): Promise<number> {
	const { rows } = await db.execute<{ n: number }>(sql`
		select count(distinct item_id)::int as n from care_look
		where good and looked_at > ${day}::date - interval '1 day' and (looked_at at time zone ${timeZone})::date = ${day}::date`);
	return rows[0]?.n ?? 0;
}
