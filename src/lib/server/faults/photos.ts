import { asc, eq } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { defect, defectPhoto, user } from '../db/schema/index.ts';
import { redraw } from '../inspection/photos.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { writeAfter } from '../kernel/write.ts';

const MOST_PER_FAULT = 10;

/** Keeps a picture of a fault. @throws Refusal where the fault has ended, has too many, or the bytes are no picture */
export function addFaultPhoto(
	context: Context,
	input: { id: string; defectId: string; bytes: Uint8Array }
): Promise<void> {
	const asked = { id: input.id, content: input };
	const asDrawn = () => redraw(input.bytes);
	return writeAfter(context, 'note what happened', asked, asDrawn, async (at, drawn) => {
		const [of] = await at.tx
			.select({ id: defect.id, itemId: defect.itemId, closedAt: defect.closedAt })
			.from(defect)
			.where(eq(defect.id, input.defectId))
			.for('update');
		if (!of) throw new Refusal('not found', 'There is no such fault.');
		if (of.closedAt)
			throw new Refusal('conflict', 'The fault has ended; nothing is added to it any more.');
		if ((await faultPhotos(at.tx, of.id)).length >= MOST_PER_FAULT)
			throw new Refusal('invalid', `At most ${MOST_PER_FAULT} pictures of one fault.`, 'photo');
		const hash = sha256(drawn.jpeg);
		await at.tx.insert(defectPhoto).values({
			id: input.id,
			defectId: of.id,
			...drawn,
			sha256: hash,
			takenBy: at.actor.id,
			takenAt: at.now
		});
		at.record('defect.photo', {
			of: of.id,
			itemId: of.itemId,
			payload: { sha256: hash, width: drawn.width, height: drawn.height }
		});
	});
}

/** The pictures of a fault, without their bytes. */
export const faultPhotos = (db: Connection, defectId: string) =>
	db
		.select({ id: defectPhoto.id, takenAt: defectPhoto.takenAt, by: user.name })
		.from(defectPhoto)
		.innerJoin(user, eq(user.id, defectPhoto.takenBy))
		.where(eq(defectPhoto.defectId, defectId))
		.orderBy(asc(defectPhoto.takenAt));
