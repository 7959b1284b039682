import { DETAILS, tell, type Told } from '../../../core/actions/catalogue.ts';
import { type HistoryFilter, historyRows } from '../db/queries/history.ts';
import type { Context } from '../kernel/context.ts';

/** An entry of the log as people read it. */
export interface HistoryLine extends Told {
	seq: number;
	at: Date;
	actor: string;
	/** Tag of the item that it is about. */
	tag: string | null;
	/** Why it came out so, where a judgement was recorded. */
	reasons: string[];
	hash: string;
}

/** What happened, newest first: to one item, to one subject such as an account, or everywhere. Steps on the way are left out unless asked for. */
export async function history(
	{ db }: Pick<Context, 'db'>,
	filter: HistoryFilter & { limit?: number; details?: boolean } = {}
): Promise<HistoryLine[]> {
	const { limit = 200, details = false, ...wanted } = filter;
	const rows = await historyRows(db, { ...wanted, without: details ? [] : DETAILS, limit });
	return rows.map(({ entry, actor, tag }) => {
		const payload = JSON.parse(entry.payload) as Record<string, unknown>;
		return {
			...tell(entry.action, entry.subject, payload),
			seq: entry.seq,
			at: entry.at,
			actor: actor ?? 'Grevan',
			tag,
			reasons: reasonsIn(payload.reasons),
			hash: entry.hash
		};
	});
}

const reasonsIn = (reasons: unknown): string[] =>
	Array.isArray(reasons)
		? reasons.flatMap((reason: { text?: unknown }) =>
				typeof reason.text === 'string' ? [reason.text] : []
			)
		: [];
