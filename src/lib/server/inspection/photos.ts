import { asc, eq } from 'drizzle-orm';
import { unionAll } from 'drizzle-orm/pg-core';
import type { Connection } from '../db/client.ts';
import { defectPhoto, photo, user } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { sha256 } from '../kernel/sha256.ts';
import { writeAfter } from '../kernel/write.ts';
import { lockRun } from './locked-run.ts';
import { procedureAt } from './procedures.ts';
import pLimit from 'p-limit';
import sharp from 'sharp';

/** Largest file that is taken. */
export const PHOTO_MOST_BYTES = 15_000_000;
const LONGEST_SIDE = 1600;
/** A picture that unpacks to more than this is refused before it is unpacked. */
const MOST_PIXELS = 80_000_000;
const FORMATS = new Set(['jpeg', 'png', 'webp', 'heif', 'avif', 'gif', 'tiff']);
const MOST_PER_RUN = 40;
/** Pictures that are unpacked at once, each up to 320 MB of memory; the others wait. Common practice. */
const AT_ONCE = 2;
const drawing = pLimit(AT_ONCE);
// One thread for each, and nothing kept of one for the next.
sharp.concurrency(1);
sharp.cache(false);

/**
 * Draws a picture anew from its pixels: upright, at most 1600 px, JPEG. Nothing else of the file is kept: no place,
 * no camera, no hidden content.
 * @throws Refusal at photo when the bytes are no picture
 */
export const redraw = (bytes: Uint8Array) => drawing(() => draw(bytes));

async function draw(bytes: Uint8Array) {
	if (bytes.byteLength > PHOTO_MOST_BYTES)
		throw new Refusal(
			'invalid',
			`The file has ${(bytes.byteLength / 1e6).toFixed(0)} MB, ${PHOTO_MOST_BYTES / 1e6} MB at most. Take it at a lower setting.`,
			'photo'
		);
	try {
		const image = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: 'error' });
		const { format } = await image.metadata();
		if (!FORMATS.has(format)) throw new Error(format);
		const { data, info } = await image
			.rotate()
			.resize(LONGEST_SIDE, LONGEST_SIDE, { fit: 'inside', withoutEnlargement: true })
			.flatten({ background: '#ffffff' })
			.jpeg({ quality: 82 })
			.toBuffer({ resolveWithObject: true });
		return { jpeg: data, width: info.width, height: info.height };
	} catch {
		throw new Refusal(
			'invalid',
			'This file is no picture, whatever its name says. Choose a JPEG, PNG or WebP.',
			'photo'
		);
	}
}

/** Keeps a picture at a step of an open run. */
export function addPhoto(
	context: Context,
	input: { id: string; runId: string; step: string; bytes: Uint8Array }
): Promise<void> {
	const asDrawn = () => redraw(input.bytes);
	const asked = { id: input.id, content: input };
	return writeAfter(context, 'inspect', asked, asDrawn, async (at, drawn) => {
		const { tx } = at;
		const { run } = await lockRun(tx, input.runId);
		if (run.signedAt)
			throw new Refusal('conflict', 'The inspection is signed; nothing is added to it any more.');
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		if (!procedure.steps.some((s) => s.key === input.step))
			throw new Refusal('invalid', 'This inspection has no such step.', 'step');
		if ((await photosOf(tx, run.id)).length >= MOST_PER_RUN)
			throw new Refusal('invalid', `At most ${MOST_PER_RUN} pictures in one inspection.`, 'photo');
		const hash = sha256(drawn.jpeg);
		await tx.insert(photo).values({
			id: input.id,
			runId: run.id,
			step: input.step,
			...drawn,
			sha256: hash,
			takenBy: at.actor.id,
			takenAt: at.now
		});
		at.record('inspection.photo', {
			of: run.id,
			itemId: run.itemId,
			payload: { step: input.step, sha256: hash, width: drawn.width, height: drawn.height }
		});
	});
}

/** The pictures of a run, without their bytes. */
export const photosOf = (db: Connection, runId: string) =>
	db
		.select({
			id: photo.id,
			step: photo.step,
			width: photo.width,
			height: photo.height,
			takenAt: photo.takenAt,
			by: user.name
		})
		.from(photo)
		.innerJoin(user, eq(user.id, photo.takenBy))
		.where(eq(photo.runId, runId))
		.orderBy(asc(photo.takenAt));

/** The bytes of a picture, of an inspection or of a fault. */
export async function photoJpeg(db: Connection, id: string): Promise<Buffer> {
	const [row] = await unionAll(
		db.select({ jpeg: photo.jpeg }).from(photo).where(eq(photo.id, id)),
		db.select({ jpeg: defectPhoto.jpeg }).from(defectPhoto).where(eq(defectPhoto.id, id))
	);
	if (!row) throw new Refusal('not found', 'There is no such picture.');
	return row.jpeg;
}
