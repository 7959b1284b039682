import { and, asc, eq, isNull, ne } from 'drizzle-orm';
import { judgePack } from '../../../core/filters/stock.ts';
import type { Connection } from '../db/client.ts';
import { filterLayer, filterLot, filterModel } from '../db/schema/index.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { itemByTag } from '../register/items.ts';
import { refuseUnapproved } from '../register/sets.ts';
import { lockPair } from './pairs.ts';

const onPair = (pairId: string) =>
	and(eq(filterLayer.pairId, pairId), isNull(filterLayer.removedAt));

/** What sits over the filters of a pair now: pre-filter, retainer, adapter; the innermost first. */
export const layersOn = (db: Connection, pairId: string) =>
	db
		.select({
			id: filterLayer.id,
			name: filterModel.name,
			role: filterModel.role,
			lot: filterLot.lot,
			lotId: filterLot.id,
			quantity: filterLayer.quantity,
			fittedOn: filterLayer.fittedOn
		})
		.from(filterLayer)
		.innerJoin(filterLot, eq(filterLot.id, filterLayer.lotId))
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.where(onPair(pairId))
		.orderBy(asc(filterLayer.fittedOn), asc(filterModel.name));

/** What of the store goes over filters of a mount, and may be fitted today; the caller says how many. */
export async function layersFor(context: Context, mount: string, filters: number) {
	const rows = await context.db
		.select({ lot: filterLot, model: filterModel })
		.from(filterLot)
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.where(and(ne(filterModel.role, 'filter'), eq(filterModel.mount, mount)))
		.orderBy(asc(filterModel.name), asc(filterLot.useBy));
	return rows.filter(
		({ lot, model }) =>
			judgePack({ ...model, ...lot }, { mount, filters }, todayOf(context)).outcome === 'serves'
	);
}

/** Fits a pre-filter, retainer or adapter over each filter of a pair: fresh from the store, alike on both sides. */
export function fitLayer(
	context: Context,
	input: { id: string; tag: string; lotId: string }
): Promise<void> {
	return write(context, 'open filters', { id: input.id, content: input }, async (at) => {
		const { tx } = at;
		const row = await lockPair(at, input.tag);
		const { pair, tag } = row;
		if (pair.discardedAt) throw new Refusal('conflict', `${tag} was taken out of use meanwhile.`);
		const [found] = await tx
			.select({ lot: filterLot, model: filterModel })
			.from(filterLot)
			.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
			.where(eq(filterLot.id, input.lotId))
			.for('update', { of: filterLot });
		if (!found) throw new Refusal('not found', 'This lot is not in the store.', 'lotId');
		const { lot, model } = found;
		if (model.role === 'filter')
			throw new Refusal(
				'invalid',
				`${model.name} is a filter of its own: open a pair of it.`,
				'lotId'
			);
		refuseUnapproved((await itemByTag(tx, row.itemTag)).model, model.name, 'lotId');
		const worn = await layersOn(tx, pair.id);
		if (worn.some((one) => one.role === model.role))
			throw new Refusal('conflict', `${tag} carries one already; take that off first.`, 'lotId');
		const judged = judgePack(
			{ ...model, ...lot },
			{ mount: row.model.mount, filters: pair.filters },
			at.today
		);
		if (judged.outcome !== 'serves')
			throw new Refusal(
				'conflict',
				`${model.name}, lot ${lot.lot}: ${judged.reasons.map((r) => r.text).join(' ')}`,
				'lotId'
			);
		await tx
			.update(filterLot)
			.set({ sealedQuantity: lot.sealedQuantity - pair.filters })
			.where(eq(filterLot.id, lot.id));
		await tx.insert(filterLayer).values({
			id: input.id,
			pairId: pair.id,
			lotId: lot.id,
			quantity: pair.filters,
			fittedOn: at.today,
			fittedBy: at.actor.id
		});
		at.changed(pair.itemId);
		at.record('filter-layer.fitted', {
			of: pair.id,
			itemId: pair.itemId,
			payload: { pair: tag, what: model.name, lot: lot.lot, quantity: pair.filters }
		});
	});
}

/** Takes what sits over a pair off it. It is used up: nothing of it goes back into the store. */
export function removeLayer(
	context: Context,
	input: { requestId: string; tag: string; layerId: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'open filters', { id, content }, async (at) => {
		const { pair, tag } = await lockPair(at, input.tag);
		const worn = await layersOn(at.tx, pair.id);
		const layer = worn.find((one) => one.id === input.layerId);
		if (!layer) return;
		await at.tx
			.update(filterLayer)
			.set({ removedAt: at.now, removedBy: at.actor.id })
			.where(eq(filterLayer.id, layer.id));
		at.changed(pair.itemId);
		at.record('filter-layer.removed', {
			of: pair.id,
			itemId: pair.itemId,
			payload: { pair: tag, what: layer.name, lot: layer.lot, quantity: layer.quantity }
		});
	});
}
