import { recordOf } from '../../../core/actions/catalogue.ts';
import type { RecordKind } from '../../../core/actions/action.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { Connection } from '../db/client.ts';
import { keepHashes, recordHashes } from '../db/queries/records.ts';
import type { NewEntry } from './audit.ts';

/** Name under which an entry states the hash of the record that it makes whole. */
export const STATED = 'record';

/**
 * Works out the hash of each record that entries make whole, keeps it beside the record, and states it in the entry:
 * neither can be changed from then on without the other telling.
 * @param known hashes of records that were worked out as they were written, by their ids: those are not read again
 * @returns the entries, with what they state
 */
export async function withRecordHashes(
	tx: Connection,
	entries: readonly NewEntry[],
	known: ReadonlyMap<string, string> = new Map()
): Promise<NewEntry[]> {
	const records = entries.map((entry) =>
		recordOf(entry.action, entry.subject, entry.payload ?? {})
	);
	const ids = groupBy(
		records.filter((record) => record !== null && record !== undefined),
		(record) => record.kind
	);
	const hashes = new Map<RecordKind, Map<string, string>>();
	for (const [kind, of] of ids) {
		const unread = of.filter(({ id }) => !known.has(id)).map(({ id }) => id);
		const found = await recordHashes(tx, kind, unread);
		for (const { id } of of) {
			const hash = known.get(id);
			if (hash) found.set(id, hash);
		}
		hashes.set(kind, found);
		await keepHashes(
			tx,
			[...found].map(([recordId, hash]) => ({ kind, recordId, hash }))
		);
	}
	return entries.map((entry, i) => {
		const record = records[i];
		const hash = record && hashes.get(record.kind)?.get(record.id);
		return hash ? { ...entry, payload: { ...entry.payload, [STATED]: hash } } : entry;
	});
}
