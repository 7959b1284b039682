import { and, desc, eq, ne } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { device, session } from '../db/schema/index.ts';
import type { Actor, Context, Unattended } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Requested, write, writeUnattended } from '../kernel/write.ts';

type EndWhy = 'signed out' | 'handed over' | 'idle' | 'whole';

/** The open sessions of a person, the one used last first. */
export const sessionsOf = (db: Connection, userId: string) =>
	db
		.select({
			id: session.id,
			begunAt: session.createdAt,
			seenAt: session.seenAt,
			shared: session.shared,
			way: session.way,
			browser: session.userAgent,
			device: device.name
		})
		.from(session)
		.leftJoin(device, eq(device.id, session.deviceId))
		.where(eq(session.userId, userId))
		.orderBy(desc(session.seenAt));

/** Ends a session as its person leaves, or as its time is over. */
export async function endSession(
	context: Unattended,
	whose: Actor,
	sessionId: string,
	why: EndWhy
): Promise<void> {
	await writeUnattended(context, whose, async ({ tx, record }) => {
		const { rowCount } = await tx.delete(session).where(eq(session.id, sessionId));
		if (rowCount) record('session.ended', { of: whose.id, payload: { why } });
	});
}

/**
 * Ends sessions of one's own: one of them, or all but the one that asks.
 * @throws Refusal where there is no such session
 */
export async function endOwnSessions(
	context: Context,
	request: Requested,
	which: { id: string } | { allBut: string }
): Promise<{ ended: number }> {
	return write(context, 'view', request, async ({ tx, actor, record }) => {
		const own = eq(session.userId, actor.id);
		const chosen = 'id' in which ? eq(session.id, which.id) : ne(session.id, which.allBut);
		const { rowCount } = await tx.delete(session).where(and(own, chosen));
		const ended = rowCount ?? 0;
		if (!ended && 'id' in which) throw new Refusal('not found', 'This session has ended already.');
		if (ended) record('session.ended', { of: actor.id, payload: { why: 'by hand', count: ended } });
		return { ended };
	});
}

/** The person has seen how many tries failed in their name. */
export const seenTries = (context: Context, request: Requested, sessionId: string) =>
	write(context, 'view', request, ({ tx }) =>
		tx
			.update(session)
			.set({ failuresBefore: 0 })
			.where(eq(session.id, sessionId))
			.then(() => null)
	);

/** Ends every session of a person whose account was changed, within that change. */
export const endSessionsOf = (tx: Connection, userId: string, but?: string) =>
	tx.delete(session).where(and(eq(session.userId, userId), but ? ne(session.id, but) : undefined));
