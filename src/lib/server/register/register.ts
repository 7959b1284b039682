import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { decodeText } from '../../../core/csv/decode.ts';
import { readTable, type TableFault, writeTable } from '../../../core/csv/table.ts';
import { checkTag, emptyItemRow, ITEM_COLUMNS, type ItemRow } from '../../../core/register/csv.ts';
import type { Connection } from '../db/client.ts';
import { allItems, type ItemFilter } from '../db/queries/items.ts';
import { item, itemModel, place } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Most items that one write moves or labels. */
export const MOST_AT_ONCE = 200;
const CHUNK = 500;

/** The register, or what a filter finds of it, as CSV. */
export async function exportItems(context: Context, filter: ItemFilter) {
	const asOf = todayOf(context);
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
	input: { id: string; bytes: Uint8Array; leaveOutBad: boolean }
): Promise<{ imported: number }> {
	try {
		return await write(
			context,
			'keep the register',
			{ id: input.id, content: input },
			async (at) => {
				const { items, faults } = await readItems(at.tx, input.bytes);
				if (faults.length && !input.leaveOutBad)
					throw new Refusal(
						'invalid',
						`${faults.length} cells are at fault; nothing was written.`,
						'file'
					);
				const [first, last] = [items[0], items.at(-1)];
				if (!first || !last) throw new Refusal('invalid', 'There is no new item in it.', 'file');
				const rows = items.map((line) => ({
					id: crypto.randomUUID(),
					tag: line.tag,
					family: line.model.family,
					modelId: line.model.id,
					size: line.size || 'one size',
					serial: line.serial,
					placeId: line.place.id,
					inUseSince: line.inUseSince || at.today
				}));
				for (let i = 0; i < rows.length; i += CHUNK)
					await at.tx.insert(item).values(rows.slice(i, i + CHUNK));
				at.changed(...rows.map((row) => row.id));
				at.record('register.imported', {
					of: input.id,
					payload: { items: rows.length, first: first.tag, last: last.tag }
				});
				return { imported: rows.length };
			}
		);
	} catch (error) {
		if (brokenConstraint(error) === 'item_tag')
			throw new Refusal(
				'conflict',
				'One of the tags was entered meanwhile. Look at it again.',
				'file'
			);
		throw error;
	}
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
export async function addItem(context: Context, input: NewItem): Promise<string> {
	const asked = { id: input.id, content: input };
	try {
		return await write(context, 'keep the register', asked, async (at) => {
			const tag = tagOf(input.tag);
			const [model] = await at.tx.select().from(itemModel).where(eq(itemModel.id, input.modelId));
			if (!model) throw new Refusal('invalid', 'Choose the model.', 'modelId');
			if (model.withdrawnOn)
				throw new Refusal(
					'conflict',
					`${model.name} was withdrawn: ${model.withdrawnWhy}`,
					'modelId'
				);
			await at.tx.insert(item).values({
				...input,
				tag,
				size: input.size || 'one size',
				family: model.family,
				inUseSince: at.today
			});
			at.changed(input.id);
			at.record('item.added', {
				of: input.id,
				itemId: input.id,
				payload: { tag, model: model.name, serial: input.serial }
			});
			return tag;
		});
	} catch (error) {
		if (brokenConstraint(error) === 'item_tag')
			throw new Refusal('conflict', `${tagOf(input.tag)} is in the register already.`, 'tag');
		throw error;
	}
}

function tagOf(text: string): string {
	try {
		return checkTag(text);
	} catch (error) {
		throw new Refusal('invalid', (error as Error).message, 'tag');
	}
}

/** Moves many items to a place at once: all of them or none. */
export function moveItems(
	context: Context,
	input: { requestId: string; tags: readonly string[]; placeId: string }
): Promise<{ moved: number }> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the register', { id, content }, async (at) => {
		const { tx } = at;
		if (input.tags.length === 0) throw new Refusal('invalid', 'Choose items first.', 'tags');
		if (input.tags.length > MOST_AT_ONCE)
			throw new Refusal('invalid', `At most ${MOST_AT_ONCE} items at once.`, 'tags');
		const [to] = await tx.select().from(place).where(eq(place.id, input.placeId));
		if (!to) throw new Refusal('invalid', 'Choose where they go.', 'placeId');
		const found = await tx
			.select({ id: item.id, tag: item.tag, from: place.name })
			.from(item)
			.innerJoin(place, eq(place.id, item.placeId))
			.where(and(inArray(item.tag, [...input.tags]), isNull(item.retiredOn)))
			.orderBy(asc(item.tag));
		const missing = input.tags.filter((tag) => !found.some((row) => row.tag === tag));
		if (missing.length)
			throw new Refusal('conflict', `Not in use or unknown: ${missing.join(', ')}.`, 'tags');
		const moving = found.filter((row) => row.from !== to.name);
		for (const row of moving) {
			await tx.update(item).set({ placeId: to.id }).where(eq(item.id, row.id));
			at.record('item.moved', {
				of: row.id,
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
