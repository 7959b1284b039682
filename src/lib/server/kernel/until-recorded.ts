import type { Connection } from '../db/client.ts';
import { auditHead } from '../db/schema/index.ts';
import type { Reader } from './context.ts';

interface Held {
	/** The state of the record, and the minute or less, that the answer is of. */
	of: string;
	answer: Promise<unknown>;
}

const kept = new WeakMap<Connection, Map<string, Held>>();
const MINUTE_MS = 60_000;
/** Answers that are kept at once; the one that was asked for longest ago goes first. */
const MOST = 300;

/**
 * An answer that is the same for everyone, worked out once for all who ask until something is recorded, and anew
 * each minute, or as often as is asked for. Whatever changes the record writes to its log, so that its end tells whether anything did; it is read
 * first, so that an answer is never older than the record was when it was asked for.
 */
export async function untilRecorded<T>(
	context: Reader,
	name: string,
	work: () => Promise<T>,
	withinMs = MINUTE_MS
): Promise<T> {
	const end = await recordEnd(context.db);
	const period = Math.floor(context.now().getTime() / withinMs);
	const of = JSON.stringify([end, period, context.site]);
	let answers = kept.get(context.db);
	if (!answers) kept.set(context.db, (answers = new Map()));
	const held = answers.get(name);
	answers.delete(name);
	if (held?.of === of) {
		answers.set(name, held);
		return held.answer as Promise<T>;
	}
	const answer = work();
	const now: Held = { of, answer };
	answers.set(name, now);
	const [oldest] = answers.keys();
	if (answers.size > MOST && oldest !== undefined) answers.delete(oldest);
	// What failed is asked for again.
	answer.catch(() => answers.get(name) === now && answers.delete(name));
	return answer;
}

interface Asking {
	/** Asked of the database already. */
	running: Promise<number | undefined> | null;
	/** For all who came since. */
	next: Promise<number | undefined> | null;
}

const asking = new WeakMap<Connection, Asking>();

/**
 * The end of the log. Whoever comes while it is being asked for shares the next question with the others who do: never
 * one that was put before they came, which may not know what they know.
 */
function recordEnd(db: Connection): Promise<number | undefined> {
	let ask = asking.get(db);
	if (!ask) asking.set(db, (ask = { running: null, next: null }));
	const mine = ask;
	if (mine.next) return mine.next;
	if (!mine.running) return put(db, mine);
	return (mine.next = mine.running
		.catch(() => undefined)
		.then(() => {
			mine.next = null;
			return put(db, mine);
		}));
}

function put(db: Connection, ask: Asking): Promise<number | undefined> {
	const question = (async () => {
		const [head] = await db.select({ seq: auditHead.seq }).from(auditHead);
		return head?.seq;
	})();
	ask.running = question;
	const over = () => {
		if (ask.running === question) ask.running = null;
	};
	question.then(over, over);
	return question;
}
