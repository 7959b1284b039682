import { and, asc, eq, isNull } from 'drizzle-orm';
import { NOT_LOOKED_FOR } from '../../../core/data/reject-codes.ts';
import { readable } from '../../../core/plan/calendar.ts';
import { partName } from '../../../core/service/parts-store.ts';
import type { Connection } from '../db/client.ts';
import { partFitting, partLot, servicePart } from '../db/schema/index.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { Work } from '../kernel/write.ts';

/** Takes a part of a lot out of the store for a repair, and puts it in where the first fault of the repair was. */
export async function usePart(
	at: Work,
	job: { id: string; itemId: string },
	part: { lotId: string; quantity: number },
	mended: readonly { station: string; code: string }[]
): Promise<void> {
	const lot = await takePart(at, job.id, part);
	const [first] = mended;
	if (first)
		await fitPart(
			at,
			{ itemId: job.itemId, jobId: job.id, station: first.station, ...part },
			lot,
			mended
		);
}

/** @returns the part that the lot is of. @throws Refusal where there is not enough of it, or it is past its shelf life */
async function takePart(
	{ tx, today }: Work,
	jobId: string,
	{ lotId, quantity }: { lotId: string; quantity: number }
): Promise<string> {
	const [lot] = await tx.select().from(partLot).where(eq(partLot.id, lotId)).for('update');
	if (!lot) throw new Refusal('invalid', 'This part lot is not in the store.', 'parts');
	const name = partName(lot.part);
	if (lot.quantity < quantity)
		throw new Refusal(
			'invalid',
			`${name}, lot ${lot.lot}: ${lot.quantity} left, ${quantity} wanted.`,
			'parts'
		);
	if (lot.useBy && lot.useBy < today)
		throw new Refusal(
			'invalid',
			`${name}, lot ${lot.lot}: past its shelf life of ${readable(lot.useBy)}.`,
			'parts'
		);
	await tx
		.update(partLot)
		.set({ quantity: lot.quantity - quantity })
		.where(eq(partLot.id, lotId));
	await tx.insert(servicePart).values({ jobId, lotId, quantity });
	return lot.part;
}

/** What sat at the station leaves, and the age of what is put in begins. */
async function fitPart(
	{ tx, now }: Work,
	fitted: { itemId: string; jobId: string; station: string; lotId: string; quantity: number },
	part: string,
	mended: readonly { station: string; code: string }[]
): Promise<void> {
	const failed = mended.some(
		({ station, code }) => station === fitted.station && !NOT_LOOKED_FOR.has(code)
	);
	await tx
		.update(partFitting)
		.set({ removedAt: now, removedHow: failed ? 'failed' : 'changed' })
		.where(
			and(
				eq(partFitting.itemId, fitted.itemId),
				eq(partFitting.station, fitted.station),
				eq(partFitting.part, part),
				isNull(partFitting.removedAt)
			)
		);
	await tx.insert(partFitting).values({ id: crypto.randomUUID(), ...fitted, part, fittedAt: now });
}

/** What is out of use for good takes its parts along. */
export const endFittings = ({ tx, now }: Work, itemId: string) =>
	tx
		.update(partFitting)
		.set({ removedAt: now, removedHow: 'retired' })
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
