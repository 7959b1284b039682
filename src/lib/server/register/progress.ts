import { eq, lt, or } from 'drizzle-orm';
import { importProgress } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';

/** What a process that ended left behind is forgotten after so long. Site default. */
const FORGOTTEN_MS = 3_600_000;

/**
 * Tells how far a long import is, beside its transaction, so that it is seen before it ends.
 * @throws Refusal where somebody asked for its end: the transaction then keeps nothing
 */
export async function tellProgress(
	{ db, now }: Context,
	id: string,
	done: number,
	total: number
): Promise<void> {
	const [row] = await db
		.insert(importProgress)
		.values({ id, done, total, at: now() })
		.onConflictDoUpdate({ target: importProgress.id, set: { done, total, at: now() } })
		.returning({ cancelled: importProgress.cancelled });
	if (row?.cancelled)
		throw new Refusal('conflict', 'It was stopped. Nothing of it was taken in.', 'file');
}

/** Forgets how far an import was, and what others left behind. */
export async function endProgress({ db, now }: Context, id: string): Promise<void> {
	const old = new Date(now().getTime() - FORGOTTEN_MS);
	await db.delete(importProgress).where(or(eq(importProgress.id, id), lt(importProgress.at, old)));
}

/** How far an import is; null before it says so, and when it has ended. */
export async function progressOf({ db }: Context, id: string) {
	const [row] = await db
		.select({
			done: importProgress.done,
			total: importProgress.total,
			cancelled: importProgress.cancelled
		})
		.from(importProgress)
		.where(eq(importProgress.id, id));
	return row ?? null;
}

/** Asks for the end of an import. @returns whether one was under way */
export async function stopImport({ db, actor }: Context, id: string): Promise<boolean> {
	requirePermission(actor.role, 'keep the register');
	const rows = await db
		.update(importProgress)
		.set({ cancelled: true })
		.where(eq(importProgress.id, id))
		.returning({ id: importProgress.id });
	return rows.length > 0;
}
