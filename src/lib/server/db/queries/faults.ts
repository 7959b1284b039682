import { isNull, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { defect, defectReport } from '../schema/index.ts';

/** How many reports of a fault stand. */
export const standingReports = sql<number>`(select count(*)::int from defect_report r
	where r.defect_id = defect.id and r.withdrawn_at is null)`;

/**
 * Opens a fault, or adds one more report to the same one that is open.
 * @returns the id of the fault that is open now
 */
export async function reportFault(
	tx: Connection,
	found: typeof defect.$inferInsert
): Promise<string> {
	const [row] = await tx
		.insert(defect)
		.values(found)
		.onConflictDoUpdate({
			target: [defect.itemId, defect.station, defect.code],
			targetWhere: isNull(defect.closedAt),
			// Changes nothing, but gives back the one that is open.
			set: { code: found.code }
		})
		.returning({ id: defect.id });
	if (!row) throw new RangeError('The fault was not written.');
	await tx.insert(defectReport).values({
		id: found.id,
		defectId: row.id,
		reportedBy: found.reportedBy,
		reportedAt: found.reportedAt,
		note: found.note,
		step: found.step,
		runId: found.runId
	});
	return row.id;
}
