import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { decodeText } from '../../core/csv/decode.ts';
import { readTable, writeTable, type TableFault } from '../../core/csv/table.ts';
import { checkTag, emptyItemRow, ITEM_COLUMNS, type ItemRow } from '../../core/register/csv.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import { allItems, type ItemFilter } from './db/queries/items.ts';
import type { Connection } from './db/client.ts';
import { item, itemModel, place } from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** Most items that one deed moves or labels. */
export const MOST_AT_ONCE = 200;
const CHUNK = 500;

/** The register, or what a filter finds of it, as CSV. */
export async function exportItems(context: Context, site: Site, filter: ItemFilter) {
	const asOf = dayAt(context.now(), site.timeZone);
	const rows = await allItems(context.db, filter, asOf);
	return writeTable(
		rows.map((row): ItemRow => ({ ...row, set: row.set ?? undefined })),
		ITEM_COLUMNS
	);
}

/** What a table would do to the register; nothing is written. */
export async function previewItems(db: Connection, bytes: Uint8Array) {
	const { items: _, ...preview } = await readItems(db, bytes);
	return preview;
}

async function readItems(db: Connection, bytes: Uint8Array) {
	const { text, encoding } = decodeText(bytes);
	const read = readTable(text, ITEM_COLUMNS, emptyItemRow);
	const [models, places, known] = [
		await db
			.select({ id: itemModel.id, name: itemModel.name, family: itemModel.family })
			.from(itemModel),
		await db.select({ id: place.id, name: place.name }).from(place),
		new Set((await db.select({ tag: item.tag }).from(item)).map((row) => row.tag))
	];
	const byName = <T extends { name: string }>(list: T[]) =>
		new Map(list.map((one) => [one.name.toLowerCase(), one]));
	const [modelOf, placeOf] = [byName(models), byName(places)];
	const faults: TableFault[] = [...read.faults];
	const seen = new Map<string, number>();
	const items = read.good.flatMap(({ row, record: line }) => {
		const fault = (column: string, message: string) => {
			faults.push({ row, column, message });
			return [];
		};
		const [model, where] = [
			modelOf.get(line.model.toLowerCase()),
			placeOf.get(line.place.toLowerCase())
		];
		if (!model)
			return fault('model', `“${line.model}” is not among the models; add it there first.`);
		if (!where) return fault('place', `“${line.place}” is none of the places of the site.`);
		const earlier = seen.get(line.tag);
		if (earlier) return fault('tag', `${line.tag} stands in row ${earlier} already.`);
		if (known.has(line.tag)) return fault('tag', `${line.tag} is in the register already.`);
		seen.set(line.tag, row);
		return [{ ...line, model, place: where }];
	});
	faults.sort((a, b) => a.row - b.row);
	return {
		items,
		faults,
		rows: read.rows,
		unknown: read.unknown,
		encoding,
		newCount: items.length
	};
}

/** Takes new items in from a table: all of them or, when asked, all but the rows at fault. */
export async function importItems(
	context: Context,
	site: Site,
	input: { id: string; bytes: Uint8Array; leaveOutBad: boolean }
): Promise<{ imported: number }> {
	requireRole(context.actor, 'keep the register');
	const { items, faults } = await readItems(context.db, input.bytes);
	if (faults.length && !input.leaveOutBad)
		throw new Fault('invalid', `${faults.length} cells are at fault; nothing was written.`, 'file');
	if (items.length === 0) throw new Fault('invalid', 'There is no new item in it.', 'file');
	const today = dayAt(context.now(), site.timeZone);
	const rows = items.map((line) => ({
		id: crypto.randomUUID(),
		tag: line.tag,
		family: line.model.family,
		modelId: line.model.id,
		size: line.size || 'one size',
		serial: line.serial,
		placeId: line.place.id,
		inUseSince: line.inUseSince || today
	}));
	try {
		await inTransaction(context, async (tx) => {
			for (let i = 0; i < rows.length; i += CHUNK) {
				const part = rows.slice(i, i + CHUNK);
				await tx.insert(item).values(part);
				await rebuildState(
					tx,
					part.map((row) => row.id),
					site
				);
			}
			await record(tx, context.actor.id, {
				action: 'register.imported',
				subject: `import:${input.id}`,
				payload: { items: rows.length, first: rows[0]?.tag, last: rows.at(-1)?.tag }
			});
		});
	} catch (error) {
		if (brokenConstraint(error) === 'item_tag')
			throw new Fault(
				'conflict',
				'One of the tags was entered meanwhile. Look at it again.',
				'file'
			);
		throw error;
	}
	return { imported: rows.length };
}

export interface NewItem {
	id: string;
	tag: string;
	modelId: string;
	size: string;
	serial: string;
	placeId: string;
}

/** Takes one item into the register. It is overdue until it is inspected. */
export async function addItem(context: Context, site: Site, input: NewItem): Promise<string> {
	requireRole(context.actor, 'keep the register');
	let tag: string;
	try {
		tag = checkTag(input.tag);
	} catch (error) {
		throw new Fault('invalid', (error as Error).message, 'tag');
	}
	const [model] = await context.db.select().from(itemModel).where(eq(itemModel.id, input.modelId));
	if (!model) throw new Fault('invalid', 'Choose the model.', 'modelId');
	if (model.withdrawnOn)
		throw new Fault('conflict', `${model.name} was withdrawn: ${model.withdrawnWhy}`, 'modelId');
	const [again] = await context.db.select().from(item).where(eq(item.id, input.id));
	if (again) return again.tag;
	try {
		await inTransaction(context, async (tx) => {
			await tx.insert(item).values({
				...input,
				tag,
				size: input.size || 'one size',
				family: model.family,
				inUseSince: dayAt(context.now(), site.timeZone)
			});
			await rebuildState(tx, [input.id], site);
			await record(tx, context.actor.id, {
				action: 'item.added',
				subject: `item:${input.id}`,
				itemId: input.id,
				payload: { tag, model: model.name, serial: input.serial }
			});
		});
	} catch (error) {
		if (brokenConstraint(error) === 'item_tag')
			throw new Fault('conflict', `${tag} is in the register already.`, 'tag');
		throw error;
	}
	return tag;
}

/** Moves many items to a place at once: all of them or none. */
export async function moveItems(
	context: Context,
	input: { tags: readonly string[]; placeId: string }
): Promise<{ moved: number }> {
	requireRole(context.actor, 'keep the register');
	if (input.tags.length === 0) throw new Fault('invalid', 'Choose items first.', 'tags');
	if (input.tags.length > MOST_AT_ONCE)
		throw new Fault('invalid', `At most ${MOST_AT_ONCE} items at once.`, 'tags');
	return inTransaction(context, async (tx) => {
		const [to] = await tx.select().from(place).where(eq(place.id, input.placeId));
		if (!to) throw new Fault('invalid', 'Choose where they go.', 'placeId');
		const found = await tx
			.select({ id: item.id, tag: item.tag, from: place.name })
			.from(item)
			.innerJoin(place, eq(place.id, item.placeId))
			.where(and(inArray(item.tag, [...input.tags]), isNull(item.retiredOn)))
			.orderBy(asc(item.tag));
		const missing = input.tags.filter((tag) => !found.some((row) => row.tag === tag));
		if (missing.length)
			throw new Fault('conflict', `Not in use or unknown: ${missing.join(', ')}.`, 'tags');
		const moving = found.filter((row) => row.from !== to.name);
		for (const row of moving) {
			await tx.update(item).set({ placeId: to.id }).where(eq(item.id, row.id));
			await record(tx, context.actor.id, {
				action: 'item.moved',
				subject: `item:${row.id}`,
				itemId: row.id,
				payload: { from: row.from, to: to.name }
			});
		}
		return { moved: moving.length };
	});
}

/** What a label of each item says. */
export const labelsOf = (db: Connection, tags: readonly string[]) =>
	db
		.select({ tag: item.tag, model: itemModel.name, size: item.size, serial: item.serial })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(inArray(item.tag, tags.slice(0, MOST_AT_ONCE)))
		.orderBy(asc(item.tag));
