import { isNull, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { defect } from '../schema/index.ts';

/**
 * Opens a fault, or counts one more report of the same one that is open.
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
			set: { reports: sql`${defect.reports} + 1` }
		})
		.returning({ id: defect.id });
	if (!row) throw new RangeError('The fault was not written.');
	return row.id;
}
