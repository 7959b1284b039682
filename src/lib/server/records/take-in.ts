import { readTableFile } from '../../../core/csv/read-file.ts';
import { type Column, type TableFault, writeTable } from '../../../core/csv/table.ts';
import type { TableAsks, TableFile } from '../../../core/csv/ways.ts';
import { PAST_TABLES, type PastKind } from '../../../core/records/past-tables.ts';
import { fieldOf } from '../../../core/records/registers.ts';
import type { Context } from '../kernel/context.ts';
import { type Permission, requirePermission } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { loadSite } from '../kernel/site.ts';
import { sha256 } from '../kernel/sha256.ts';
import { attempt, rehearse, type Work, write } from '../kernel/write.ts';
import { rebuildAll } from '../readiness/rebuild-all.ts';
import { endProgress, tellProgress } from '../register/progress.ts';
import { requireRows } from '../register/tables.ts';
import { PUT, type RowOf } from './past-rows.ts';

/** Most rows of one table: each is judged as if it were typed in. Site. */
const MOST_ROWS = 5000;
const TELL_EVERY = 50;

/** Who takes each kind in: whoever writes it down otherwise. */
export const PAST_NEEDS: Record<PastKind, Permission> = {
	cylinders: 'keep the register',
	'air-tests': 'test air',
	fills: 'fill cylinders',
	entries: 'control entries',
	'fit-tests': 'fit-test',
	faults: 'inspect',
	rules: 'keep the site'
};

interface PastTableRead {
	good: { row: number; record: object }[];
	faults: TableFault[];
	rows: number;
	unknown: string[];
	encoding: string;
	asks: TableAsks;
}

/** The table of a kind, whichever its rows are. */
const tableOf = (kind: PastKind) =>
	PAST_TABLES[kind] as unknown as {
		columns: readonly Column<object>[];
		empty: () => object;
		example: object;
	};

function readPast(kind: PastKind, file: TableFile): PastTableRead {
	const { columns, empty } = tableOf(kind);
	const read = readTableFile(file, columns, empty);
	if (read.rows > MOST_ROWS)
		throw new Refusal(
			'too much',
			`${read.rows.toLocaleString('en-GB')} rows; at most ${MOST_ROWS.toLocaleString('en-GB')} are taken at once. Split the file.`,
			'file'
		);
	return read;
}

/** An empty table of a kind with one line that shows how it is filled in. */
export function pastTemplate(kind: PastKind): string {
	const { columns, empty, example } = tableOf(kind);
	return writeTable([Object.assign(empty(), example)], columns);
}

/** Puts each row down as if it were typed in; one that is refused leaves nothing behind. @returns what was refused, by row and column */
async function putAll(
	at: Work,
	kind: PastKind,
	read: PastTableRead,
	told: (done: number) => Promise<void> = async () => {}
): Promise<TableFault[]> {
	const { columns } = tableOf(kind);
	const put = PUT[kind] as (at: Work, row: RowOf<PastKind>) => Promise<void>;
	const refused: TableFault[] = [];
	for (const [i, { row, record }] of read.good.entries()) {
		const refusal = await attempt(at, (part) => put(part, record as RowOf<PastKind>));
		if (refusal) {
			const path = refusal.path ?? '';
			const column = columns.find(({ name }) => name === path || fieldOf(name) === path)?.name;
			refused.push({ row, column: column ?? path, message: refusal.message });
		}
		if (i % TELL_EVERY === 0) await told(i);
	}
	return refused;
}

const sorted = (faults: TableFault[]) => faults.sort((a, b) => a.row - b.row);

/** What a table would bring: each row is tried as if it were typed in, and all of it undone. */
export async function previewPast(context: Context, kind: PastKind, file: TableFile) {
	requirePermission(context.actor.role, PAST_NEEDS[kind]);
	const read = readPast(kind, file);
	const refused = await rehearse(context, PAST_NEEDS[kind], (at) => putAll(at, kind, read));
	const { rows, unknown, encoding, asks } = read;
	return {
		newCount: read.good.length - refused.length,
		faults: sorted([...read.faults, ...refused]),
		rows,
		unknown,
		encoding,
		asks
	};
}

/** Takes a table in: all of its rows or, when asked, all but those at fault. It stays: it is part of the record. */
export async function takePast(
	context: Context,
	kind: PastKind,
	input: { id: string; file: TableFile; leaveOutBad: boolean }
): Promise<{ imported: number }> {
	requirePermission(context.actor.role, PAST_NEEDS[kind]);
	const read = readPast(kind, input.file);
	try {
		const taken = await write(
			context,
			PAST_NEEDS[kind],
			{ id: input.id, content: { kind, ...input } },
			async (at) => {
				const refused = await putAll(at, kind, read, (done) =>
					tellProgress(context, input.id, done, read.good.length)
				);
				const imported = read.good.length - refused.length;
				requireRows(
					{ faults: [...read.faults, ...refused], asks: read.asks },
					imported,
					input.leaveOutBad
				);
				const bytes = input.file instanceof Uint8Array ? input.file : input.file.bytes;
				at.record('records.taken-in', {
					of: input.id,
					payload: { kind, rows: imported, sha256: sha256(bytes) }
				});
				return { imported };
			}
		);
		if (kind === 'rules') await rebuildAll({ ...context, site: await loadSite(context.db) });
		return taken;
	} finally {
		await endProgress(context, input.id);
	}
}
