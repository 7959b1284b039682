import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';

/** The first few of what came in with a table that something was done with since, by what people call them. */
export async function workedWith(tx: Connection, importId: string): Promise<string[]> {
	const { rows } = await tx.execute<{ name: string }>(sql`
		select name from (
			select i.tag as name from item i where i.import_id = ${importId} and (
				exists (select 1 from audit_entry a where a.item_id = i.id)
				or i.retired_on is not null
				or exists (select 1 from item p where p.set_id = i.id and p.import_id is distinct from i.import_id)
				or exists (select 1 from item s where s.id = i.set_id and s.import_id is distinct from i.import_id))
			union all
			select 'lot ' || l.lot from filter_lot l where l.import_id = ${importId} and (
				exists (select 1 from audit_entry a where a.subject = 'filter-lot:' || l.id)
				or exists (select 1 from filter_pair p where p.lot_id = l.id)
				or exists (select 1 from filter_layer y where y.lot_id = l.id))
			union all
			select m.name from filter_model m where m.import_id = ${importId}
				and exists (select 1 from filter_lot l where l.model_id = m.id and l.import_id is distinct from m.import_id)
			union all
			select 'lot ' || l.lot from part_lot l where l.import_id = ${importId}
				and exists (select 1 from service_part s where s.lot_id = l.id)
			union all
			select w.number from wearer w where w.import_id = ${importId} and (
				exists (select 1 from audit_entry a where a.subject = 'wearer:' || w.id)
				or w.version > 1)
		) worked order by name limit 5`);
	return rows.map(({ name }) => name);
}

/** Rows that one statement removes: none takes longer than a statement may. */
const BATCH = 2000;

/** Removes everything that came in with a table. @returns how many rows */
export async function undoImport(tx: Connection, importId: string): Promise<number> {
	for (let gone = 0; ;) {
		const { rows } = await tx.execute<{ n: number }>(
			sql`select undo_table_import(${importId}, ${BATCH}) as n`
		);
		const n = rows[0]?.n ?? 0;
		if (n === 0) return gone;
		gone += n;
	}
}
