import { recordOf, tell } from '../../../core/actions/catalogue.ts';
import { entriesByHash, entryAndBefore } from '../db/queries/history.ts';
import { recordHashes } from '../db/queries/records.ts';
import { hashOf } from '../kernel/chain.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { STATED } from '../kernel/record-hash.ts';

/** What stands on a paper: the number of an entry, with the beginning of its hash after it or without; or a hash alone. */
const NUMBERED = /^(?:entry\s+)?(\d{1,12})(?:[\s,/·]+([0-9a-f]{7,64}))?$/i;
const HASH = /^[0-9a-f]{7,64}$/i;
const MOST = 5;

export interface Verified {
	seq: number;
	at: Date;
	says: string;
	links: ReturnType<typeof tell>['links'];
	hash: string;
	/** What is not as it was; empty where it stands. */
	faults: string[];
}

/**
 * Looks up what a paper names and works its hashes out anew: the entry, its place in the chain, and the record that it
 * tells of.
 * @throws Refusal where nothing readable was typed
 */
export async function verifyPaper(context: Pick<Context, 'db'>, text: string): Promise<Verified[]> {
	const { db } = context;
	const typed = text.trim();
	const [, number, after] = NUMBERED.exec(typed) ?? [];
	const hash = after ?? (number || !HASH.test(typed) ? undefined : typed);
	if (!number && !hash)
		throw new Refusal(
			'invalid',
			'Type the number of the entry, its hash (seven characters at least), or both as they stand on the paper.',
			'paper'
		);
	const found = number
		? (await entryAndBefore(db, Number(number))).filter(({ seq }) => seq === Number(number))
		: await entriesByHash(db, (hash ?? '').toLowerCase(), MOST);
	return Promise.all(
		found.map(async (entry) => {
			const payload = JSON.parse(entry.payload) as Record<string, unknown>;
			return {
				...tell(entry.action, entry.subject, payload),
				seq: entry.seq,
				at: entry.at,
				hash: entry.hash,
				faults: await faultsOf(context, entry, payload, hash?.toLowerCase())
			};
		})
	);
}

async function faultsOf(
	{ db }: Pick<Context, 'db'>,
	entry: Awaited<ReturnType<typeof entryAndBefore>>[number],
	payload: Record<string, unknown>,
	asked: string | undefined
): Promise<string[]> {
	const faults: string[] = [];
	const { hash, ...rest } = entry;
	if (asked && !hash.startsWith(asked))
		faults.push(
			`Entry ${entry.seq} has the hash ${hash.slice(0, 16)}, not ${asked.slice(0, 16)}: this paper is not of this record.`
		);
	if (hashOf(rest) !== hash) faults.push('The entry was changed after it was written.');
	const [before] = await entryAndBefore(db, entry.seq);
	if (entry.seq > 1 && (before?.seq !== entry.seq - 1 || before.hash !== entry.prevHash))
		faults.push('It does not follow from the entry before it.');
	const record = recordOf(entry.action, entry.subject, payload);
	const stated = payload[STATED];
	if (record && typeof stated === 'string') {
		const now = (await recordHashes(db, record.kind, [record.id])).get(record.id);
		if (now !== stated) faults.push(`The ${record.kind} that it tells of was changed since.`);
	}
	return faults;
}
