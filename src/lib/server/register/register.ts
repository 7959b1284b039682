import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { writeTable } from '../../../core/csv/table.ts';
import { checkTag, ITEM_COLUMNS, type ItemRow } from '../../../core/register/csv.ts';
import type { ItemTable, Register } from '../../../core/register/import.ts';
import type { UsePattern } from '../../../core/site/places.ts';
import type { TableFile } from '../../../core/csv/ways.ts';
import { moveTo, openRow } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import { allItems, type ItemFilter } from '../db/queries/items.ts';
import { item, itemModel, place } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { heavy } from '../jobs/heavy.ts';
import { requirePermission } from '../kernel/permissions.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write, writeAfter } from '../kernel/write.ts';
import { endProgress, tellProgress } from './progress.ts';
import { keepImport, requireRows } from './tables.ts';

/** Most items that one write moves or labels. */
export const MOST_AT_ONCE = 200;

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
export async function previewItems({ db, actor }: Pick<Context, 'db' | 'actor'>, file: TableFile) {
	requirePermission(actor.role, 'keep the register');
	const {
		count,
		parts: _,
		...preview
	} = await heavy('read items', { file, register: await held(db) });
	return { ...preview, newCount: count };
}

/** What new items are set against. */
async function held(db: Connection): Promise<Register> {
	return {
		models: await db
			.select({ id: itemModel.id, name: itemModel.name, family: itemModel.family })
			.from(itemModel),
		places: await db
			.select({ id: place.id, name: place.name })
			.from(place)
			.where(isNull(place.closedOn)),
		tags: (await db.select({ tag: item.tag }).from(item)).map(({ tag }) => tag)
	};
}

/** Takes new items in from a table: all of them or, when asked, all but the rows at fault. */
export async function importItems(
	context: Context,
	input: { id: string; file: TableFile; leaveOutBad: boolean }
): Promise<{ imported: number }> {
	try {
		return await writeAfter(
			context,
			'keep the register',
			{ id: input.id, content: input },
			async () => heavy('read items', { file: input.file, register: await held(context.db) }),
			async (at, { parts, count, ...table }) => {
				requireRows(table, count, input.leaveOutBad, 'There is no new item in it.');
				const importId = input.id;
				await keepImport(at, { id: importId, kind: 'items', rows: count });
				let done = 0;
				let [first, last] = ['', ''];
				for (const part of parts) {
					const rows = (JSON.parse(part) as ItemTable['items']).map((line) => ({
						id: crypto.randomUUID(),
						tag: line.tag,
						family: line.model.family,
						modelId: line.model.id,
						size: line.size || 'one size',
						serial: line.serial,
						placeId: line.place.id,
						inUseSince: line.inUseSince || at.today,
						usePattern: line.usePattern ?? 'shared',
						importId
					}));
					await at.tx.insert(item).values(rows);
					await at.rebuild(rows.map((row) => row.id));
					done += rows.length;
					await tellProgress(context, importId, done, count);
					first ||= rows[0]?.tag ?? '';
					last = rows.at(-1)?.tag ?? last;
				}
				at.record('register.imported', { of: input.id, payload: { items: count, first, last } });
				return { imported: count };
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
	} finally {
		await endProgress(context, input.id);
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
			await openPlace(at.tx, input.placeId, 'Choose the place.');
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

/** A place that is in use, which nobody closes until the transaction ends. @throws Refusal where it is none */
async function openPlace(tx: Connection, id: string, say: string) {
	const [found] = await tx.select().from(place).where(eq(place.id, id)).for('share');
	if (!found) throw new Refusal('invalid', say, 'placeId');
	if (found.closedOn) throw new Refusal('conflict', `${found.name} was closed. ${say}`, 'placeId');
	return found;
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
		const to = await openPlace(tx, input.placeId, 'Choose where they go.');
		const found = await chosenItems(tx, input.tags);
		const moving = found.filter((row) => row.from !== to.name);
		for (const row of moving) {
			await tx.update(item).set({ placeId: to.id }).where(eq(item.id, row.id));
			const { where } = await openRow(tx, row.id);
			if (where === 'shelf')
				await moveTo(at, { ...row, placeId: to.id, setId: null }, { where: 'shelf' });
			// A rule of intervals may hold at one place only.
			at.changed(row.id);
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
		.select({
			tag: item.tag,
			family: item.family,
			model: itemModel.name,
			size: item.size,
			serial: item.serial
		})
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(inArray(item.tag, tags.slice(0, MOST_AT_ONCE)))
		.orderBy(asc(item.tag));

/** Items in use by their tags, which the caller may change. @throws Refusal where none are chosen, too many, or one is not in use */
async function chosenItems(tx: Connection, tags: readonly string[]) {
	if (tags.length === 0) throw new Refusal('invalid', 'Choose items first.', 'tags');
	if (tags.length > MOST_AT_ONCE)
		throw new Refusal('invalid', `At most ${MOST_AT_ONCE} items at once.`, 'tags');
	const found = await tx
		.select({ id: item.id, tag: item.tag, from: place.name, usePattern: item.usePattern })
		.from(item)
		.innerJoin(place, eq(place.id, item.placeId))
		.where(and(inArray(item.tag, [...tags]), isNull(item.retiredOn)))
		.orderBy(asc(item.tag));
	const missing = tags.filter((tag) => !found.some((row) => row.tag === tag));
	if (missing.length)
		throw new Refusal('conflict', `Not in use or unknown: ${missing.join(', ')}.`, 'tags');
	return found;
}

/** Says of many items at once whose they are: all of them or none. Rules of intervals may follow it. */
export function setUse(
	context: Context,
	input: { requestId: string; tags: readonly string[]; usePattern: UsePattern }
): Promise<{ changedUse: number }> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the register', { id, content }, async (at) => {
		const found = await chosenItems(at.tx, input.tags);
		const changing = found.filter((row) => row.usePattern !== input.usePattern);
		for (const row of changing) {
			await at.tx.update(item).set({ usePattern: input.usePattern }).where(eq(item.id, row.id));
			at.changed(row.id);
			at.record('item.use-changed', {
				of: row.id,
				itemId: row.id,
				payload: { from: row.usePattern, to: input.usePattern }
			});
		}
		return { changedUse: changing.length };
	});
}
