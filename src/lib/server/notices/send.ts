import { and, asc, eq, lte } from 'drizzle-orm';
import { triedAgainAt } from '../../../core/notices/digest.ts';
import { notice } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import { type Deliver, postHere } from './mail.ts';

/** Messages that one round hands over. */
const AT_ONCE = 20;
const LONGEST_ERROR = 300;

/**
 * Hands over what waits and is to be tried by now. A server that is away or answers nonsense fails the one message,
 * which is tried again later, at last given up and shown. The caller sees to it that one process does it at a time.
 * @returns how many were taken
 */
export async function sendWaiting(
	{ db, now }: Pick<Unattended, 'db' | 'now'>,
	deliver: Deliver | null = postHere()?.deliver ?? null
): Promise<number> {
	if (!deliver) return 0;
	const waiting = await db
		.select()
		.from(notice)
		.where(and(eq(notice.state, 'waiting'), lte(notice.nextTryAt, now())))
		.orderBy(asc(notice.nextTryAt))
		.limit(AT_ONCE);
	let sent = 0;
	for (const one of waiting) {
		const error = await deliver({
			to: one.address,
			subject: one.subject,
			text: one.body,
			id: one.id
		}).then(
			() => null,
			(cause: unknown) => (cause instanceof Error ? cause.message : 'It could not be sent.')
		);
		const tries = one.tries + 1;
		const at = now();
		const again = error === null ? null : triedAgainAt(tries, at);
		await db
			.update(notice)
			.set({
				tries,
				nextTryAt: again,
				lastError: (error ?? '').replaceAll(/\s+/g, ' ').slice(0, LONGEST_ERROR),
				...(error === null
					? { state: 'sent' as const, sentAt: at }
					: { state: again ? ('waiting' as const) : ('given up' as const) })
			})
			.where(and(eq(notice.id, one.id), eq(notice.state, 'waiting')));
		if (error === null) sent++;
	}
	return sent;
}
