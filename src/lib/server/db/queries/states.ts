import { sql } from 'drizzle-orm';
import type { ItemDue } from '../../../../core/readiness/findings.ts';
import type { Connection } from '../client.ts';
import { itemDue, itemState } from '../schema/index.ts';

/** The kept state of an item with everything that falls due about it. */
export interface KeptState extends Omit<typeof itemState.$inferSelect, 'itemId'> {
	itemId: string;
	dues: ItemDue[];
}

/** Keeps states and dues of items in one statement, always in the same order, so that two writers never wait in a ring. */
export async function keepStates(tx: Connection, states: readonly KeptState[]): Promise<void> {
	if (states.length === 0) return;
	const sorted = [...states].sort((a, b) => (a.itemId < b.itemId ? -1 : 1));
	await tx.execute(sql`
		with given as materialized (
			select * from json_to_recordset(${JSON.stringify(sorted)}::json) as x(
				"itemId" uuid, blocked text, "dueFrom" date, "dueOn" date, "dueWhat" text,
				"dueDetail" text, "dueLeft" text, "watchedFor" text, "lastInspectionOn" date, dues json)
		),
		kept as (
			insert into ${itemState} (item_id, blocked, due_from, due_on, due_what, due_detail, due_left, watched_for, last_inspection_on)
			select "itemId", blocked, "dueFrom", "dueOn", "dueWhat", "dueDetail", "dueLeft", "watchedFor", "lastInspectionOn"
			from given order by "itemId"
			on conflict (item_id) do update set blocked = excluded.blocked, due_from = excluded.due_from,
				due_on = excluded.due_on, due_what = excluded.due_what, due_detail = excluded.due_detail,
				due_left = excluded.due_left, watched_for = excluded.watched_for,
				last_inspection_on = excluded.last_inspection_on
			returning item_id
		),
		dues as materialized (
			select g."itemId" as item_id, d.what, coalesce(d.detail, '') as detail, coalesce(d.part, '') as part,
				d."from" as due_from, d."on" as due_on, coalesce(d."left", '') as left_words
			from given g, json_to_recordset(g.dues) as d(what text, detail text, part text, "from" date, "on" date, "left" text)
		),
		gone as (
			delete from ${itemDue} old where old.item_id in (select "itemId" from given)
				and not exists (select 1 from dues d
					where d.item_id = old.item_id and d.what = old.what and d.detail = old.detail and d.part = old.part)
			returning 1
		)
		insert into ${itemDue} (item_id, what, detail, part, due_from, due_on, left_words)
		select item_id, what, detail, part, due_from, due_on, left_words from dues order by item_id, what, detail, part
		on conflict (item_id, what, detail, part) do update set due_from = excluded.due_from, due_on = excluded.due_on,
			left_words = excluded.left_words
			where (item_due.due_from, item_due.due_on, item_due.left_words)
				is distinct from (excluded.due_from, excluded.due_on, excluded.left_words)`);
}

/** Whether items are in use of which no due is kept at all. */
export async function lackDues(db: Connection): Promise<boolean> {
	const { rows } = await db.execute<{ lack: boolean }>(sql`
		select exists (select 1 from ${itemState} where blocked is distinct from 'retired')
			and not exists (select 1 from ${itemDue}) as lack`);
	return rows[0]?.lack === true;
}
