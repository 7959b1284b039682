import { recordOf } from '../../../core/actions/catalogue.ts';
import type { RecordKind } from '../../../core/actions/action.ts';
import type { Connection } from '../db/client.ts';
import { keepHashes, recordHashes } from '../db/queries/records.ts';
import type { NewEntry } from './audit.ts';

/** Name under which an entry states the hash of the record that it makes whole. */
export const STATED = 'record';

/**
 * Works out the hash of each record that entries make whole, keeps it beside the record, and states it in the entry:
 * neither can be changed from then on without the other telling.
 * @returns the entries, with what they state
 */
export async function withRecordHashes(
	tx: Connection,
	entries: readonly NewEntry[]
): Promise<NewEntry[]> {
	const records = entries.map((entry) =>
		recordOf(entry.action, entry.subject, entry.payload ?? {})
	);
	const ids = new Map<RecordKind, string[]>();
	for (const record of records)
		if (record) ids.set(record.kind, [...(ids.get(record.kind) ?? []), record.id]);
	const hashes = new Map<RecordKind, Map<string, string>>();
	for (const [kind, of] of ids) {
		const found = await recordHashes(tx, kind, of);
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
