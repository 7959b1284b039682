import { and, count, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { RECALLED } from '../../../core/data/reject-codes.ts';
import { partName } from '../../../core/service/parts-store.ts';
import type { Connection } from '../db/client.ts';
import {
	holdHolders,
	recalledFilters,
	recallRows,
	recallsWithProgress
} from '../db/queries/recalls.ts';
import { item, itemModel, partLot, recall, recallItem } from '../db/schema/index.ts';
import { failedAir } from '../air/sources.ts';
import type { Context, Reader } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { tellAtOnce } from '../notices/urgent.ts';
import { itemByTag } from '../register/items.ts';

/**
 * Calls a lot of parts back: what is in the store goes, every item that has one of it is held, what had one is named. All of it or nothing.
 * @returns the recall, and how many it holds
 */
export function recallParts(
	context: Context,
	input: { id: string; lotId: string; why: string }
): Promise<{ recallId: string; held: number }> {
	return write(context, 'recall a lot', { id: input.id, content: input }, async (at) => {
		const why = input.why.trim();
		if (!why) throw new Refusal('invalid', 'Say what is wrong with them.', 'why');
		const [lot] = await at.tx
			.select()
			.from(partLot)
			.where(eq(partLot.id, input.lotId))
			.for('update');
		if (!lot) throw new Refusal('not found', 'There is no such lot.');
		const [before] = await at.tx.select().from(recall).where(eq(recall.lotId, lot.id));
		if (before) throw new Refusal('conflict', 'This lot was called back already.', 'why');
		await at.tx.update(partLot).set({ quantity: 0 }).where(eq(partLot.id, lot.id));
		await at.tx.insert(recall).values({
			id: input.id,
			lotId: lot.id,
			why,
			fromStore: lot.quantity,
			by: at.actor.id,
			at: at.now
		});
		const name = partName(lot.part);
		const note = `${name}, lot ${lot.lot}, called back: ${why}`;
		const held = await holdHolders(at.tx, {
			recallId: input.id,
			lotId: lot.id,
			code: RECALLED,
			note,
			by: at.actor.id,
			at: at.now
		});
		const ids = held.map(({ itemId }) => itemId);
		at.changed(...ids);
		const [listed] = await recallsWithProgress(at.tx, input.id);
		at.record('parts.recalled', {
			of: input.id,
			payload: {
				part: name,
				lot: lot.lot,
				why,
				held: held.length,
				had: listed?.had ?? 0,
				fromStore: lot.quantity
			}
		});
		for (const { itemId, defectId, station } of held)
			at.record('defect.opened', {
				of: defectId,
				itemId,
				payload: { station, code: RECALLED, severity: 'stop', note }
			});
		await tellAtOnce(at, { says: `${note}.`, itemIds: ids, href: `/faults/recalls/${input.id}` });
		return { recallId: input.id, held: held.length };
	});
}

/** Says what was found at an item that had a recalled part once. */
export function lookInto(
	context: Context,
	input: { requestId: string; recallId: string; tag: string; found: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'recall a lot', { id, content }, async (at) => {
		const found = input.found.trim();
		if (!found) throw new Refusal('invalid', 'Say what was found.', 'found');
		const { item: of } = await itemByTag(at.tx, input.tag);
		const [done] = await at.tx
			.update(recallItem)
			.set({ looked: found, lookedAt: at.now, lookedBy: at.actor.id })
			.where(
				and(
					eq(recallItem.recallId, input.recallId),
					eq(recallItem.itemId, of.id),
					isNull(recallItem.lookedAt),
					isNull(recallItem.defectId)
				)
			)
			.returning({ itemId: recallItem.itemId });
		if (!done)
			throw new Refusal('conflict', `${of.tag} is not waiting to be looked into here.`, 'found');
		at.record('recall.looked', { of: input.recallId, itemId: of.id, payload: { found } });
	});
}

/** One recall with every item that it is about. */
export async function recallPage(db: Connection, id: string) {
	const [found] = await recallsWithProgress(db, id);
	if (!found) throw new Refusal('not found', 'There is no such recall.');
	return { ...found, name: partName(found.part), items: await recallRows(db, id) };
}

/** Every recall and withdrawal with how far it is. */
export async function recallList(reader: Reader) {
	const { db } = reader;
	const [parts, filters, air, models] = await Promise.all([
		recallsWithProgress(db),
		recalledFilters(db),
		failedAir(reader),
		db
			.select({
				id: itemModel.id,
				name: itemModel.name,
				on: itemModel.withdrawnOn,
				why: itemModel.withdrawnWhy,
				all: count(item.id),
				gone: count(item.retiredOn)
			})
			.from(itemModel)
			.leftJoin(item, eq(item.modelId, itemModel.id))
			.where(isNotNull(itemModel.withdrawnOn))
			.groupBy(itemModel.id)
			.orderBy(desc(itemModel.withdrawnOn))
	]);
	return {
		parts: parts.map((row) => ({ ...row, name: partName(row.part) })),
		filters,
		air,
		models
	};
}
