import { sql } from 'drizzle-orm';
import type { RetentionKind } from '../../../../core/records/retention.ts';
import type { Connection } from '../client.ts';

/** Rows that one statement lets go: none takes longer than a statement may. */
const BATCH = 2000;

const OLD: Record<RetentionKind, (before: string) => ReturnType<typeof sql>> = {
	'gauge readings': (before) => sql`
		select w.ended_at as at from entry_reading r join entry_wearer w on w.id = r.wearer_id where w.ended_at < ${before}::timestamptz
		union all
		select w.ended_at from entry_alarm a join entry_wearer w on w.id = a.wearer_id where w.ended_at < ${before}::timestamptz`,
	drills: (before) => sql`
		select ended_at as at from drill_session where ended_at < ${before}::timestamptz and exam_id is null
		union all select ended_at from drill_test where ended_at < ${before}::timestamptz`,
	messages: (before) => sql`
		select made_at as at from notice where made_at < ${before}::timestamptz and state <> 'waiting'`,
	'wearers who left': (before) => sql`
		select left_on::timestamptz as at from wearer where left_on < ${before}::timestamptz::date and erased_on is null`
};

/** How many of a kind are older than a moment, and since when the oldest. */
export async function olderThan(db: Connection, kind: RetentionKind, before: Date) {
	const { rows } = await db.execute<{ n: number; oldest: string | null }>(
		sql`select count(*)::int as n, to_char(min(at), 'YYYY-MM-DD') as oldest from (${OLD[kind](before.toISOString())}) old`
	);
	return { count: rows[0]?.n ?? 0, oldest: rows[0]?.oldest ?? null };
}

/** Lets go of what is older than a moment. @returns how many rows */
export async function dropOlder(
	tx: Connection,
	kind: Exclude<RetentionKind, 'wearers who left'>,
	before: Date
): Promise<number> {
	for (let gone = 0; ;) {
		const { rows } = await tx.execute<{ n: number }>(
			sql`select drop_retained(${kind}, ${before.toISOString()}::timestamptz, ${BATCH}) as n`
		);
		const n = rows[0]?.n ?? 0;
		if (n === 0) return gone;
		gone += n;
	}
}
