import { and, eq, gt, isNull, lt, sql } from 'drizzle-orm';
import type { Connection } from '../client.ts';
import { apiKey, rateLimit, session, signInFailure, user } from '../schema/index.ts';

/**
 * Counts one request of a key in its window of time.
 * @returns how many there were in this window, this one included
 */
export async function countRequest(
	db: Connection,
	key: string,
	windowMs: number,
	now: Date
): Promise<number> {
	const at = now.getTime();
	const began = sql`${rateLimit.lastRequest} > ${at - windowMs}`;
	const [row] = await db
		.insert(rateLimit)
		.values({ id: key, key, count: 1, lastRequest: at })
		.onConflictDoUpdate({
			target: rateLimit.key,
			set: {
				count: sql`case when ${began} then ${rateLimit.count} + 1 else 1 end`,
				lastRequest: sql`case when ${began} then ${rateLimit.lastRequest} else ${at}::bigint end`
			}
		})
		.returning({ count: rateLimit.count });
	return row?.count ?? 1;
}

/** How many requests of a key were counted in the window of time that it is in. */
export async function requestsOf(
	db: Connection,
	key: string,
	windowMs: number,
	now: Date
): Promise<number> {
	const [row] = await db
		.select({ count: rateLimit.count })
		.from(rateLimit)
		.where(and(eq(rateLimit.key, key), gt(rateLimit.lastRequest, now.getTime() - windowMs)));
	return row?.count ?? 0;
}

/** Tries that failed in a row, held until the end of the transaction so that two at once count as two. */
export async function failuresOf(tx: Connection, key: string, now: Date) {
	// Where none failed yet there is a row to hold all the same.
	await tx.insert(signInFailure).values({ key, failures: 0, lastAt: now }).onConflictDoNothing();
	const [row] = await tx
		.select()
		.from(signInFailure)
		.where(eq(signInFailure.key, key))
		.for('update');
	return row;
}

/** Counts a try as failed; who succeeds has it taken back. */
export const countFailure = (tx: Connection, key: string, at: Date) =>
	tx
		.insert(signInFailure)
		.values({ key, failures: 1, lastAt: at })
		.onConflictDoUpdate({
			target: signInFailure.key,
			set: { failures: sql`${signInFailure.failures} + 1`, lastAt: at }
		});

/** Forgets failed tries and counts of requests from before a moment. */
export async function forgetTries(db: Connection, before: Date): Promise<void> {
	await db.delete(signInFailure).where(lt(signInFailure.lastAt, before));
	await db.delete(rateLimit).where(lt(rateLimit.lastRequest, before.getTime()));
}

/** Notes that a session is in use; once a minute is enough. */
export const noteSeen = (db: Connection, sessionId: string, now: Date) =>
	db
		.update(session)
		.set({ seenAt: now })
		.where(and(eq(session.id, sessionId), lt(session.seenAt, now)));

/** The key with a hash while it holds, and whose it is; notes that it was used. */
export async function useKey(db: Connection, hash: string, now: Date) {
	const [row] = await db
		.update(apiKey)
		.set({ lastUsedAt: now })
		.from(user)
		.where(
			and(
				eq(apiKey.hash, hash),
				eq(user.id, apiKey.userId),
				isNull(apiKey.revokedAt),
				isNull(user.disabledAt),
				sql`(${apiKey.expiresAt} is null or ${gt(apiKey.expiresAt, now)})`
			)
		)
		.returning({
			id: user.id,
			name: user.name,
			initials: user.initials,
			role: user.role,
			scope: apiKey.scope
		});
	return row;
}
