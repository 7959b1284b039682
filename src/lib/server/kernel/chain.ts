import { asc, gt } from 'drizzle-orm';
import { RECORD_KINDS, type RecordKind } from '../../../core/actions/action.ts';
import { recordOf } from '../../../core/actions/catalogue.ts';
import type { Connection, Database } from '../db/client.ts';
import { hashedSince, keptHashes, recordHashes, unhashed } from '../db/queries/records.ts';
import { auditEntry, auditHead } from '../db/schema/index.ts';
import type { Anchor, AnchorsRead } from './anchors.ts';
import { sha256 } from './sha256.ts';
import { STATED } from './record-hash.ts';

type Entry = typeof auditEntry.$inferSelect;
const START = '0'.repeat(64);

/** The hash that an entry must have, worked out independently of the database. */
export function hashOf(entry: Omit<Entry, 'hash'>): string {
	const text = [
		entry.prevHash,
		entry.seq,
		entry.at.toISOString(),
		entry.actorId ?? '',
		entry.action,
		entry.itemId ?? '',
		entry.subject,
		entry.payload
	].join('\n');
	return sha256(text);
}

/** Something of the record that is not as it was. */
export interface RecordFault {
	/** Where, such as "entry 12" or "inspection 6f0e...". */
	where: string;
	/** Sequence of the entry that it is about, or that tells of it. */
	seq: number;
	text: string;
}

export interface ChainCheck {
	entries: number;
	head: string;
	faults: RecordFault[];
	/** The first of them in the log; undefined where all is whole. */
	broken?: RecordFault;
	/** Records whose hash was compared, and those from before hashes were kept. */
	records: number;
	unhashed: number;
	/** Anchors that were compared, and up to which entry they reach. */
	anchors: number;
	anchoredTo: number;
}

export interface ChainOptions {
	pageSize?: number;
	signed?: AnchorsRead | undefined;
	told?: (done: number, total: number) => Promise<void>;
}

/** Faults that are told one by one. */
const MOST_TOLD = 50;

/**
 * Walks the whole log in pages and says where it, or a record that it tells of, is not as it was.
 * @param signed the ends of the log that were signed and kept elsewhere; without them a chain that was made anew as a
 * whole, or cut together with its end, is not found; told hears how many entries were walked, and of how many
 */
export const verifyChain = (db: Database, options: ChainOptions = {}): Promise<ChainCheck> =>
	// As it stood at one moment: what is written meanwhile is no fault.
	db.transaction((tx) => verifyIn(tx, options), {
		isolationLevel: 'repeatable read',
		accessMode: 'read only'
	});

async function verifyIn(
	db: Connection,
	{ pageSize = 1000, signed, told }: ChainOptions
): Promise<ChainCheck> {
	const faults: RecordFault[] = [];
	const fault = (where: string, seq: number, text: string) => {
		if (faults.length < MOST_TOLD) faults.push({ where, seq, text });
	};
	const anchors = new Map<number, Anchor[]>();
	for (const anchor of signed?.anchors ?? [])
		anchors.set(anchor.seq, [...(anchors.get(anchor.seq) ?? []), anchor]);
	for (const { line, text } of signed?.faults ?? []) fault(`line ${line} of the anchors`, 0, text);
	let [seq, hash, entries, records, anchoredTo] = [0, START, 0, 0, 0];
	const [head] = await db.select().from(auditHead);
	for (;;) {
		const page = await db
			.select()
			.from(auditEntry)
			.where(gt(auditEntry.seq, seq))
			.orderBy(asc(auditEntry.seq))
			.limit(pageSize);
		for (const entry of page) {
			const at = `entry ${entry.seq}`;
			if (entry.seq !== seq + 1)
				fault(
					at,
					entry.seq,
					entry.seq === seq + 2
						? `entry ${seq + 1} is missing before it`
						: `entries ${seq + 1} to ${entry.seq - 1} are missing before it`
				);
			else if (entry.prevHash !== hash)
				fault(
					at,
					entry.seq,
					'it does not follow from the entry before it: put in, or out of its place'
				);
			if (entry.hash !== hashOf(entry)) fault(at, entry.seq, 'its content was changed');
			for (const anchor of anchors.get(entry.seq) ?? []) {
				if (anchor.hash === entry.hash) anchoredTo = entry.seq;
				else
					fault(
						at,
						entry.seq,
						`it is not the one that was signed on ${anchor.at}: the chain was made anew from after entry ${anchoredTo}, or earlier than this one`
					);
			}
			[seq, hash, entries] = [entry.seq, entry.hash, entries + 1];
		}
		records += await checkRecords(db, page, fault);
		if (page.length < pageSize) break;
		await told?.(entries, head?.seq ?? entries);
	}
	if (head && head.seq > seq)
		fault(`entry ${seq + 1}`, seq + 1, `entries ${seq + 1} to ${head.seq} are cut off at the end`);
	else if (head && (head.seq < seq || head.hash !== hash))
		fault(
			`entry ${head.seq + 1}`,
			head.seq + 1,
			head.seq < seq ? 'it was put in behind the end of the log' : 'the end of the log was changed'
		);
	const cut = [...anchors.keys()].filter((signedSeq) => signedSeq > seq);
	if (cut.length)
		fault(
			`entry ${seq + 1}`,
			seq + 1,
			`the log ends before it, but entry ${Math.max(...cut)} was signed: entries are cut off at the end`
		);
	const left = await unhashed(db);
	await checkUnhashed(db, left, fault);
	const broken = [...faults].sort((a, b) => a.seq - b.seq)[0];
	return {
		entries,
		head: hash,
		faults,
		...(broken ? { broken } : {}),
		records,
		unhashed: left.length,
		anchors: signed?.anchors.length ?? 0,
		anchoredTo
	};
}

type Tell = (where: string, seq: number, text: string) => void;

/** Compares records with what their entries state. @returns how many */
async function checkRecords(db: Connection, page: readonly Entry[], fault: Tell): Promise<number> {
	const stated = page.flatMap((entry) => {
		if (!entry.payload.includes(`"${STATED}":`)) return [];
		const payload = JSON.parse(entry.payload) as Record<string, unknown>;
		const record = recordOf(entry.action, entry.subject, payload);
		return record && typeof payload[STATED] === 'string'
			? [{ ...record, seq: entry.seq, hash: payload[STATED] }]
			: [];
	});
	for (const kind of RECORD_KINDS) {
		const of = stated.filter((one) => one.kind === kind);
		if (of.length === 0) continue;
		const ids = of.map(({ id }) => id);
		const [now, kept] = [await recordHashes(db, kind, ids), await keptHashes(db, kind, ids)];
		for (const { id, seq, hash } of of) {
			const where = `${kind} ${id}`;
			const is = now.get(id);
			if (is === undefined) fault(where, seq, `entry ${seq} tells of it, and it is gone`);
			else if (is !== hash)
				fault(where, seq, `it was rewritten: entry ${seq} states another hash than it has now`);
			if (kept.get(id) !== hash)
				fault(where, seq, `the hash beside it is not the one that entry ${seq} states`);
		}
	}
	return stated.length;
}

/** A record that no entry states a hash of, made after others had one, was put in beside the log. */
async function checkUnhashed(
	db: Connection,
	left: readonly { kind: RecordKind; id: string; at: Date }[],
	fault: Tell
): Promise<void> {
	if (left.length === 0) return;
	const since = await hashedSince(db);
	if (!since) return;
	for (const { kind, id, at } of left)
		if (at > since) fault(`${kind} ${id}`, 0, 'no entry of the log tells that it was made whole');
}
