import { asc } from 'drizzle-orm';
import { PARTS } from '../../../core/data/repairs.ts';
import type { Connection } from '../db/client.ts';
import { partLot } from '../db/schema/index.ts';

/** Spare parts in the store by part, the earliest use-by date first. */
export async function listParts(db: Connection) {
	const lots = await db.select().from(partLot).orderBy(asc(partLot.useBy), asc(partLot.lot));
	return Object.entries(PARTS).flatMap(([part, { name }]) => {
		const own = lots.filter((lot) => lot.part === part);
		return own.length ? [{ part, name, lots: own }] : [];
	});
}
