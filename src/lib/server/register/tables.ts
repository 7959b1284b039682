import { desc, eq } from 'drizzle-orm';
import { writeTable } from '../../../core/csv/table.ts';
import type { ImportKind } from '../../../core/csv/kinds.ts';
import { emptyStoreRow, STORE_COLUMNS } from '../../../core/filters/store-table.ts';
import { ITEM_COLUMNS } from '../../../core/register/csv.ts';
import { emptyWearerRow, WEARER_COLUMNS } from '../../../core/people/wearer-table.ts';
import { emptyPartRow, PART_COLUMNS } from '../../../core/service/parts-table.ts';
import { asksNothing, type TableAsks, type TableFile } from '../../../core/csv/ways.ts';
import type { Connection } from '../db/client.ts';
import { undoImport, workedWith } from '../db/queries/imports.ts';
import { filterLot, filterModel, partLot, tableImport, user } from '../db/schema/index.ts';
import { heavy } from '../jobs/heavy.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import type { Permission } from '../kernel/permissions.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeAfter } from '../kernel/write.ts';

/** Who takes a table of each kind in, and back. */
const KEEPS: Record<ImportKind, Permission> = {
	items: 'keep the register',
	filters: 'keep the stores',
	parts: 'keep the stores',
	wearers: 'keep wearers'
};

/** An empty table of a kind with one line that shows how it is filled in. */
export function templateOf(kind: ImportKind): string {
	if (kind === 'filters')
		return writeTable(
			[
				{
					...emptyStoreRow(),
					name: 'Example A2-P3',
					mount: 'quarter turn',
					codeEn: 'A2-P3',
					massG: 120,
					openedMonths: 6,
					reorderLevel: 10,
					lot: 'LOT-1',
					useBy: '2029-12-31',
					quantity: 20,
					location: 'Shelf 1'
				}
			],
			STORE_COLUMNS
		);
	if (kind === 'parts')
		return writeTable(
			[{ ...emptyPartRow(), part: 'disc-exhalation', lot: 'LOT-1', quantity: 10 }],
			PART_COLUMNS
		);
	if (kind === 'wearers')
		return writeTable(
			[{ ...emptyWearerRow(), number: '101', name: 'Example Person', clearedUntil: '2027-12-31' }],
			WEARER_COLUMNS
		);
	return writeTable(
		[
			{
				tag: 'HM-0001',
				model: 'Name of the model here',
				size: 'M',
				serial: '',
				place: 'Name of the place here',
				inUseSince: '2026-01-31',
				usePattern: 'shared'
			}
		],
		ITEM_COLUMNS.filter(({ name }) => name !== 'state' && name !== 'last day')
	);
}

/** Notes within a write that a table is taken in. */
export const keepImport = (
	{ tx, now, actor }: Work,
	row: { id: string; kind: ImportKind; rows: number }
) => tx.insert(tableImport).values({ ...row, doneBy: actor.id, doneAt: now });

/** The last tables that were taken in, of a kind, with who did it. */
export const lastImports = (db: Connection, kind: ImportKind) =>
	db
		.select({ table: tableImport, by: user.name })
		.from(tableImport)
		.innerJoin(user, eq(user.id, tableImport.doneBy))
		.where(eq(tableImport.kind, kind))
		.orderBy(desc(tableImport.doneAt))
		.limit(5);

export interface TableGiven {
	id: string;
	file: TableFile;
	leaveOutBad: boolean;
}

/** @throws Refusal where something of a table has to be asked before it is read */
export function requireAnswered(asks: TableAsks): void {
	if (asksNothing(asks)) return;
	throw new Refusal('invalid', 'Say first how the table is written; nothing was written.', 'file');
}

/** @throws Refusal where something has to be asked first, rows are at fault and are not to be left out, or nothing is left */
export function requireRows(
	{ faults, asks }: { faults: readonly unknown[]; asks: TableAsks },
	count: number,
	leaveOutBad: boolean,
	nothing = 'There is nothing new in it.'
): void {
	requireAnswered(asks);
	if (faults.length && !leaveOutBad)
		throw new Refusal(
			'invalid',
			`${faults.length} ${faults.length === 1 ? 'cell is' : 'cells are'} at fault; nothing was written.`,
			'file'
		);
	if (count === 0) throw new Refusal('invalid', nothing, 'file');
}

const storeHeld = async (db: Connection) => ({
	models: await db.select({ id: filterModel.id, name: filterModel.name }).from(filterModel),
	lots: await db.select({ modelId: filterLot.modelId, lot: filterLot.lot }).from(filterLot)
});

const readFilters = async (context: Context, file: TableFile) =>
	heavy('read filters', { file, held: await storeHeld(context.db), asOf: todayOf(context) });

const readParts = async (context: Context, file: TableFile) =>
	heavy('read parts', {
		file,
		held: await context.db.select({ part: partLot.part, lot: partLot.lot }).from(partLot),
		asOf: todayOf(context)
	});

/** What a table would bring into a store; nothing is written. */
export async function previewStore(context: Context, kind: 'filters' | 'parts', file: TableFile) {
	requirePermission(context.actor.role, KEEPS[kind]);
	const { lots, faults, rows, unknown, encoding, asks } =
		kind === 'filters' ? await readFilters(context, file) : await readParts(context, file);
	return { newCount: lots.length, faults, rows, unknown, encoding, asks };
}

/**
 * Takes lots in from a table: all of them or, when asked, all but those at fault.
 * @param put writes the lots; gives how many models came with them
 */
const intoStore = <
	T extends { lots: readonly unknown[]; faults: readonly unknown[]; asks: TableAsks }
>(
	context: Context,
	kind: 'filters' | 'parts',
	input: TableGiven,
	read: (context: Context, file: TableFile) => Promise<T>,
	put: (at: Work, table: T, importId: string) => Promise<number>
): Promise<{ imported: number }> =>
	noTwice(() =>
		writeAfter(
			context,
			KEEPS[kind],
			{ id: input.id, content: input },
			() => read(context, input.file),
			async (at, table) => {
				const lots = table.lots.length;
				requireRows(table, lots, input.leaveOutBad);
				await keepImport(at, { id: input.id, kind, rows: lots });
				const models = await put(at, table, input.id);
				at.record('store.imported', { of: input.id, payload: { kind, lots, models } });
				return { imported: lots };
			}
		)
	);

/** Takes lots of filters in from a table, with the models that the store does not know. */
export const importFilters = (context: Context, input: TableGiven) =>
	intoStore(context, 'filters', input, readFilters, async ({ tx }, { models, lots }, importId) => {
		if (models.length)
			await tx.insert(filterModel).values(
				models.map((model) => ({
					...model,
					id: crypto.randomUUID(),
					codeEn: model.codeEn || null,
					codeUs: model.codeUs || null,
					importId
				}))
			);
		const { models: held } = await storeHeld(tx);
		const idOf = new Map(held.map(({ id, name }) => [name.toLowerCase(), id]));
		await tx.insert(filterLot).values(
			lots.map(({ model, quantity, ...lot }) => ({
				...lot,
				id: crypto.randomUUID(),
				modelId: idOf.get(model.toLowerCase()) ?? '',
				sealedQuantity: quantity,
				importId
			}))
		);
		return models.length;
	});

/** Takes lots of spare parts in from a table. */
export const importParts = (context: Context, input: TableGiven) =>
	intoStore(context, 'parts', input, readParts, async ({ tx }, { lots }, importId) => {
		await tx
			.insert(partLot)
			.values(lots.map((lot) => ({ ...lot, id: crypto.randomUUID(), importId })));
		return 0;
	});

/** @throws Refusal where a lot or a filter came in meanwhile */
async function noTwice<T>(work: () => Promise<T>): Promise<T> {
	try {
		return await work();
	} catch (error) {
		const broken = brokenConstraint(error);
		if (broken && /_once$|_name_unique$/.test(broken))
			throw new Refusal('conflict', 'Some of it came in meanwhile. Look at it again.', 'file');
		throw error;
	}
}

/** Takes a whole table back, as if it had never come in. @throws Refusal where something of it was worked with since */
export async function takeBack(
	context: Context,
	input: { requestId: string; id: string }
): Promise<{ rows: number }> {
	const { requestId, ...content } = input;
	const [found] = await context.db.select().from(tableImport).where(eq(tableImport.id, input.id));
	if (!found) throw new Refusal('not found', 'There is no such table.');
	return write(context, KEEPS[found.kind], { id: requestId, content }, async (at) => {
		const [held] = await at.tx
			.select()
			.from(tableImport)
			.where(eq(tableImport.id, input.id))
			.for('update');
		if (!held || held.undoneAt) throw new Refusal('conflict', 'It was taken back already.');
		const worked = await workedWith(at.tx, input.id);
		if (worked.length)
			throw new Refusal(
				'conflict',
				`It cannot be taken back: ${worked.join(', ')} ${worked.length === 1 ? 'was' : 'were'} worked with since.`
			);
		const rows = await undoImport(at.tx, input.id);
		await at.tx
			.update(tableImport)
			.set({ undoneAt: at.now, undoneBy: at.actor.id })
			.where(eq(tableImport.id, input.id));
		at.record('table.taken-back', { of: input.id, payload: { kind: held.kind, rows } });
		return { rows };
	});
}
