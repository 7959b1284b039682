import type { Connection } from '../db/client.ts';
import { auditHead } from '../db/schema/index.ts';
import type { Reader } from './context.ts';

interface Held {
	/** The state of the record, and the minute, that the answer is of. */
	of: string;
	answer: Promise<unknown>;
}

const kept = new WeakMap<Connection, Map<string, Held>>();
const MINUTE_MS = 60_000;

/**
 * An answer that is the same for everyone, worked out once for all who ask until something is recorded, and anew
 * each minute. Whatever changes the record writes to its log, so that its end tells whether anything did; it is read
 * first, so that an answer is never older than the record was when it was asked for.
 */
export async function untilRecorded<T>(
	context: Reader,
	name: string,
	work: () => Promise<T>
): Promise<T> {
	const [head] = await context.db.select({ seq: auditHead.seq }).from(auditHead);
	const minute = Math.floor(context.now().getTime() / MINUTE_MS);
	const of = JSON.stringify([head?.seq, minute, context.site]);
	let answers = kept.get(context.db);
	if (!answers) kept.set(context.db, (answers = new Map()));
	const held = answers.get(name);
	if (held?.of === of) return held.answer as Promise<T>;
	const answer = work();
	const now: Held = { of, answer };
	answers.set(name, now);
	// What failed is asked for again.
	answer.catch(() => answers.get(name) === now && answers.delete(name));
	return answer;
}
