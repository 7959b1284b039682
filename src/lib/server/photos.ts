import { createHash } from 'node:crypto';
import { asc, eq } from 'drizzle-orm';
import sharp from 'sharp';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { inspectionRun, photo, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { procedureAt } from './procedures.ts';

/** Largest file that is taken. */
export const PHOTO_MOST_BYTES = 15_000_000;
const LONGEST_SIDE = 1600;
/** A picture that unpacks to more than this is refused before it is unpacked. */
const MOST_PIXELS = 80_000_000;
const FORMATS = new Set(['jpeg', 'png', 'webp', 'heif', 'avif', 'gif', 'tiff']);
const MOST_PER_RUN = 40;

/**
 * Draws a picture anew from its pixels: upright, at most 1600 px, JPEG. Nothing else of the file is kept: no place,
 * no camera, no hidden content.
 * @throws Fault at photo when the bytes are no picture
 */
export async function redraw(bytes: Uint8Array) {
	if (bytes.byteLength > PHOTO_MOST_BYTES)
		throw new Fault(
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
		throw new Fault(
			'invalid',
			'This file is no picture, whatever its name says. Choose a JPEG, PNG or WebP.',
			'photo'
		);
	}
}

/** Keeps a picture at a step of an open run. */
export async function addPhoto(
	context: Context,
	input: { id: string; runId: string; step: string; bytes: Uint8Array }
): Promise<void> {
	requireRole(context.actor, 'inspect');
	const [again] = await context.db
		.select({ id: photo.id })
		.from(photo)
		.where(eq(photo.id, input.id));
	if (again) return;
	const drawn = await redraw(input.bytes);
	await inTransaction(context, async (tx) => {
		const [run] = await tx
			.select()
			.from(inspectionRun)
			.where(eq(inspectionRun.id, input.runId))
			.for('update');
		if (!run) throw new Fault('not found', 'There is no such inspection.');
		if (run.signedAt)
			throw new Fault('conflict', 'The inspection is signed; nothing is added to it any more.');
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		if (!procedure.steps.some((s) => s.key === input.step))
			throw new Fault('invalid', 'This inspection has no such step.', 'step');
		if ((await photosOf(tx, run.id)).length >= MOST_PER_RUN)
			throw new Fault('invalid', `At most ${MOST_PER_RUN} pictures in one inspection.`, 'photo');
		const sha256 = createHash('sha256').update(drawn.jpeg).digest('hex');
		await tx.insert(photo).values({
			id: input.id,
			runId: run.id,
			step: input.step,
			...drawn,
			sha256,
			takenBy: context.actor.id,
			takenAt: context.now()
		});
		await record(tx, context.actor.id, {
			action: 'inspection.photo',
			subject: `run:${run.id}`,
			itemId: run.itemId,
			payload: { step: input.step, sha256, width: drawn.width, height: drawn.height }
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

/** The bytes of a picture. */
export async function photoJpeg(db: Connection, id: string): Promise<Buffer> {
	const [row] = await db.select({ jpeg: photo.jpeg }).from(photo).where(eq(photo.id, id));
	if (!row) throw new Fault('not found', 'There is no such picture.');
	return row.jpeg;
}
