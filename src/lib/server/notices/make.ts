import { and, eq } from 'drizzle-orm';
import { digestFor, type Message } from '../../../core/notices/digest.ts';
import { readableTime } from '../../../core/plan/moments.ts';
import { offBecause } from '../../../core/site/calendar.ts';
import { notice } from '../db/schema/index.ts';
import type { Unattended } from '../kernel/context.ts';
import { dayAt } from '../kernel/site.ts';
import { digestFacts } from './facts.ts';
import { postHere } from './mail.ts';
import { readers, waitingFor } from './readers.ts';

/** What one person would be told today; null where there is nothing to say. */
export async function digestPreview(context: Unattended, userId: string): Promise<Message | null> {
	const { db, site, now } = context;
	const reader = (await readers(db)).find(({ id }) => id === userId);
	if (!reader) return null;
	return digestFor(
		await digestFacts(db, site, dayAt(now(), site.timeZone)),
		reader,
		postHere()?.address ?? ''
	);
}

/**
 * Makes the message of the day for everybody who wants one, once the hour of the site has come on a day that it works.
 * Done any number of times it makes one each.
 */
export async function makeDigests(context: Unattended): Promise<number> {
	const { db, site } = context;
	const now = context.now();
	const day = dayAt(now, site.timeZone);
	if (!postHere() || offBecause(day, site) !== null) return 0;
	if (Number(readableTime(now, site.timeZone).slice(0, 2)) < site.digestHour) return 0;
	const made = await db
		.select({ userId: notice.userId })
		.from(notice)
		.where(and(eq(notice.kind, 'digest'), eq(notice.day, day)));
	const had = new Set(made.map(({ userId }) => userId));
	const wanting = (await readers(db)).filter(({ id, digest }) => digest && !had.has(id));
	if (wanting.length === 0) return 0;
	const facts = await digestFacts(db, site, day);
	const rows = wanting.flatMap((reader) => {
		const message = digestFor(facts, reader, postHere()?.address ?? '');
		return message ? [{ ...waitingFor(reader, message, day, now), kind: 'digest' as const }] : [];
	});
	if (rows.length) await db.insert(notice).values(rows).onConflictDoNothing();
	return rows.length;
}
