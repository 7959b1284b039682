import { sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { defect, defectReport } from '../schema/index.ts';

/** How many reports of a fault stand. */
export const standingReports = sql<number>`(select count(*)::int from defect_report r
	where r.defect_id = defect.id and r.withdrawn_at is null)`;

/**
 * Opens a fault, or adds one more report to the same one that is open; one statement.
 * @returns the id of the fault that is open now
 */
export async function reportFault(
	tx: Connection,
	found: typeof defect.$inferInsert
): Promise<string> {
	const { id, itemId, station, code, severity, reportedBy, reportedAt } = found;
	const [step, runId, note] = [found.step ?? null, found.runId ?? null, found.note ?? null];
	const at = reportedAt.toISOString();
	const { rows } = await tx.execute<{ id: string }>(sql`
		with stands as (
			insert into ${defect} (id, item_id, station, code, severity, step, run_id, note, reported_by, reported_at)
			values (${id}, ${itemId}, ${station}, ${code}, ${severity}, ${step}, ${runId}, ${note}, ${reportedBy}, ${at})
			-- Changes nothing, but gives back the one that is open.
			on conflict (item_id, station, code) where closed_at is null do update set code = excluded.code
			returning id
		)
		insert into ${defectReport} (id, defect_id, reported_by, reported_at, note, step, run_id)
		select ${id}::uuid, stands.id, ${reportedBy}, ${at}::timestamptz, ${note}, ${step}, ${runId}::uuid from stands
		returning defect_id as id`);
	const [row] = rows;
	if (!row) throw new RangeError('The fault was not written.');
	return row.id;
}
