import { eq, lt } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { writeRequest } from '../schema/index.ts';

/**
 * Takes the id of a request; waits for another one that has it and is not done yet.
 * @returns false where it was taken before
 */
export async function claim(
	tx: Connection,
	request: typeof writeRequest.$inferInsert
): Promise<boolean> {
	const { rowCount } = await tx
		.insert(writeRequest)
		.values(request)
		.onConflictDoNothing({ target: writeRequest.id });
	return rowCount === 1;
}

/** What was asked under an id, and what was answered; undefined where nothing was. */
export async function firstAnswer(db: Connection, id: string) {
	const [row] = await db
		.select({ digest: writeRequest.digest, answer: writeRequest.answer })
		.from(writeRequest)
		.where(eq(writeRequest.id, id));
	return row;
}

/** Keeps what was answered to a request, for when it comes again. */
export const keepAnswer = (tx: Connection, id: string, answer: unknown) =>
	tx.update(writeRequest).set({ answer }).where(eq(writeRequest.id, id));

/** Forgets requests from before a moment. */
export const forgetRequests = (db: Connection, before: Date) =>
	db.delete(writeRequest).where(lt(writeRequest.at, before));
