import { and, eq, isNotNull, isNull, lt } from 'drizzle-orm';
import { plusMonths } from '../../../core/plan/calendar.ts';
import { startOf } from '../../../core/plan/moments.ts';
import {
	MOST_MONTHS,
	RETAINED,
	RETENTION_KINDS,
	type RetentionKind
} from '../../../core/records/retention.ts';
import { dropOlder, olderThan } from '../db/queries/retention.ts';
import { retentionRule, wearer } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { Refusal, stale } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { putErased } from '../people/own-data.ts';

/** Wearers that one write lets go of. Site. */
const MOST_WEARERS = 500;

const boundOf = ({ site }: Pick<Context, 'site'>, today: string, keepMonths: number): Date =>
	startOf(plusMonths(today, -keepMonths), site.timeZone);

/** How long each kind is kept, and what would be let go of today. */
export async function retentionPage(context: Context) {
	const rules = await context.db.select().from(retentionRule);
	const today = todayOf(context);
	return Promise.all(
		RETENTION_KINDS.map(async (kind) => {
			const rule = rules.find((one) => one.kind === kind);
			const keepMonths = rule?.keepMonths ?? null;
			return {
				kind,
				...RETAINED[kind],
				keepMonths,
				version: rule?.version ?? 0,
				before: keepMonths === null ? null : plusMonths(today, -keepMonths),
				old:
					keepMonths === null
						? null
						: await olderThan(context.db, kind, boundOf(context, today, keepMonths))
			};
		})
	);
}

/** Says how long a kind is kept; null: for ever. Nothing is let go of by it. */
export function setRetention(
	context: Context,
	input: { requestId: string; kind: RetentionKind; keepMonths: number | null; version: number }
): Promise<void> {
	const { requestId: id, ...content } = input;
	const { kind, keepMonths, version } = content;
	return write(context, 'keep accounts', { id, content }, async ({ tx, record }) => {
		const { least } = RETAINED[kind];
		if (keepMonths !== null && (keepMonths < least || keepMonths > MOST_MONTHS))
			throw new Refusal('invalid', `From ${least} to ${MOST_MONTHS} months.`, 'keepMonths');
		const [held] = await lockRule(tx, kind);
		if ((held?.version ?? 0) !== version) throw stale('rule');
		await tx
			.insert(retentionRule)
			.values({ kind, keepMonths })
			.onConflictDoUpdate({
				target: retentionRule.kind,
				set: { keepMonths, version: version + 1 }
			});
		record('retention.set', {
			of: '1',
			payload: { kind, keepMonths, before: held?.keepMonths ?? null }
		});
	});
}

const lockRule = (tx: Work['tx'], kind: RetentionKind) =>
	tx.select().from(retentionRule).where(eq(retentionRule.kind, kind)).for('update');

/** Lets go of what is older than its rule keeps; what is let go of is not in any later backup. */
export function dropRetained(
	context: Context,
	input: { requestId: string; kind: RetentionKind; version: number }
): Promise<{ dropped: number }> {
	const { requestId: id, ...content } = input;
	const { kind, version } = content;
	return write(context, 'keep accounts', { id, content }, async (at) => {
		const [rule] = await lockRule(at.tx, kind);
		if (!rule?.keepMonths)
			throw new Refusal('conflict', 'It is kept for ever: say first for how long.', 'kind');
		if (rule.version !== version) throw stale('rule');
		const before = boundOf(context, at.today, rule.keepMonths);
		const dropped =
			kind === 'wearers who left'
				? await eraseLeft(at, before)
				: await dropOlder(at.tx, kind, before);
		if (dropped === 0) throw new Refusal('conflict', 'Nothing of it is that old.', 'kind');
		at.record('retention.dropped', {
			of: '1',
			payload: { kind, rows: dropped, before: plusMonths(at.today, -rule.keepMonths) }
		});
		return { dropped };
	});
}

async function eraseLeft(at: Work, before: Date): Promise<number> {
	const rows = await at.tx
		.select()
		.from(wearer)
		.where(
			and(
				isNotNull(wearer.leftOn),
				isNull(wearer.erasedOn),
				lt(wearer.leftOn, before.toISOString().slice(0, 10))
			)
		)
		.limit(MOST_WEARERS)
		.for('update');
	for (const row of rows) await putErased(at, row, 'kept long enough');
	return rows.length;
}
