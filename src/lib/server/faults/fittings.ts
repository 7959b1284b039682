import { and, asc, eq, isNull } from 'drizzle-orm';
import { RECALLED } from '../../../core/data/reject-codes.ts';
import { partName } from '../../../core/service/parts-store.ts';
import type { PartEnd } from '../../../core/service/ends.ts';
import type { Connection } from '../db/client.ts';
import { partFitting, partLot } from '../db/schema/index.ts';
import type { Work } from '../kernel/write.ts';

/** Codes that say nothing against the part that goes: its time was over, or its lot was called back. */
const NOT_ITS_FAILURE = new Set(['OVER', RECALLED]);

/** Puts a part in at a station: what sat there leaves, and its age begins. */
export async function fitPart(
	{ tx, now }: Work,
	fitted: { itemId: string; jobId: string; station: string; lotId: string; quantity: number },
	mended: readonly { station: string; code: string }[]
): Promise<void> {
	const [lot] = await tx
		.select({ part: partLot.part })
		.from(partLot)
		.where(eq(partLot.id, fitted.lotId));
	if (!lot) return;
	const failed = mended.some(
		({ station, code }) => station === fitted.station && !NOT_ITS_FAILURE.has(code)
	);
	await tx
		.update(partFitting)
		.set({ removedAt: now, removedHow: failed ? 'failed' : 'changed' })
		.where(
			and(
				eq(partFitting.itemId, fitted.itemId),
				eq(partFitting.station, fitted.station),
				eq(partFitting.part, lot.part),
				isNull(partFitting.removedAt)
			)
		);
	await tx
		.insert(partFitting)
		.values({ id: crypto.randomUUID(), ...fitted, part: lot.part, fittedAt: now });
}

/** What is out of use for good takes its parts along. */
export const endFittings = ({ tx, now }: Work, itemId: string, how: PartEnd = 'retired') =>
	tx
		.update(partFitting)
		.set({ removedAt: now, removedHow: how })
		.where(and(eq(partFitting.itemId, itemId), isNull(partFitting.removedAt)));

/** Parts in an item now, each with its lot and since when. */
export const partsOf = async (db: Connection, itemId: string) =>
	(
		await db
			.select({
				station: partFitting.station,
				part: partFitting.part,
				lot: partLot.lot,
				lotId: partLot.id,
				quantity: partFitting.quantity,
				fittedAt: partFitting.fittedAt,
				jobId: partFitting.jobId
			})
			.from(partFitting)
			.innerJoin(partLot, eq(partLot.id, partFitting.lotId))
			.where(and(eq(partFitting.itemId, itemId), isNull(partFitting.removedAt)))
			.orderBy(asc(partFitting.fittedAt))
	).map((row) => ({ ...row, name: partName(row.part) }));
