import { and, asc, count, eq, isNull } from 'drizzle-orm';
import type { DonningCard } from '../../../core/data/blocking.ts';
import { airwayOf, FAMILIES } from '../../../core/data/families.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import type { Connection } from '../db/client.ts';
import { item, itemModel } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Models with how many items of each are in use. */
export const listModels = (db: Connection) =>
	db
		.select({ model: itemModel, inUse: count(item.id) })
		.from(itemModel)
		.leftJoin(item, and(eq(item.modelId, itemModel.id), isNull(item.retiredOn)))
		.groupBy(itemModel.id)
		.orderBy(asc(itemModel.family), asc(itemModel.name));

export interface ModelInput {
	requestId: string;
	id: string;
	family: string;
	maker: string;
	name: string;
	mount: string;
	ratedBar: number | null;
	holdDropBar: number | null;
	donning: DonningCard | null;
	filterCount: number;
	approved: string[];
	makerLines: { station: string; text: string }[];
}

/** Adds a model or changes what its maker says of it. The family of a model never changes. */
export async function saveItemModel(context: Context, input: ModelInput): Promise<void> {
	const { requestId, ...content } = input;
	try {
		await write(context, 'edit procedures', { id: requestId, content }, async (at) => {
			const { tx } = at;
			checkModel(input);
			const [before] = await tx.select().from(itemModel).where(eq(itemModel.id, input.id));
			if (before && before.family !== input.family)
				throw new Refusal('invalid', 'The family of a model is never changed.', 'family');
			const { id, ...values } = content;
			if (before) await tx.update(itemModel).set(values).where(eq(itemModel.id, id));
			else await tx.insert(itemModel).values(content);
			// How many filters it takes decides whether its items are complete.
			if (before && (before.filterCount !== values.filterCount || before.mount !== values.mount)) {
				const items = await tx.select({ id: item.id }).from(item).where(eq(item.modelId, id));
				at.changed(...items.map((one) => one.id));
			}
			at.record(before ? 'model.changed' : 'model.added', {
				of: id,
				payload: values
			});
		});
	} catch (error) {
		if (brokenConstraint(error))
			throw new Refusal('conflict', `There is a model ${input.name} already.`, 'name');
		throw error;
	}
}

function checkModel(input: ModelInput): void {
	if (!FAMILIES.some((f) => f.family === input.family))
		throw new Refusal('invalid', 'Choose the family.', 'family');
	const stations = airwayOf(input.family).stations.map((s) => s.key);
	const stray = input.makerLines.find((line) => !stations.includes(line.station));
	if (stray) throw new Refusal('invalid', 'There is no such station on this airway.', 'makerLines');
	const inlet = input.donning?.inlet;
	if (inlet && !recordOf(input.family).inlets.includes(inlet))
		throw new Refusal('invalid', 'This family has no such inlet.', 'inlet');
}

/** Holds every item of a model that its maker took from the market. It is not undone here: a maker who lets it back gives it a new name. */
export function withdrawModel(
	context: Context,
	input: { requestId: string; id: string; why: string }
): Promise<{ held: number }> {
	const { requestId, ...content } = input;
	return write(context, 'withdraw a model', { id: requestId, content }, async (at) => {
		const { tx } = at;
		const why = input.why.trim();
		if (!why) throw new Refusal('invalid', 'Say what the maker’s notice says.', 'why');
		const [model] = await tx
			.select()
			.from(itemModel)
			.where(eq(itemModel.id, input.id))
			.for('update');
		if (!model) throw new Refusal('not found', 'There is no such model.');
		const items = await tx
			.select({ id: item.id })
			.from(item)
			.where(and(eq(item.modelId, model.id), isNull(item.retiredOn)));
		if (model.withdrawnOn) return { held: items.length };
		await tx
			.update(itemModel)
			.set({ withdrawnOn: at.today, withdrawnWhy: why })
			.where(eq(itemModel.id, model.id));
		const ids = items.map((row) => row.id);
		at.changed(...ids);
		for (const itemId of ids)
			at.record('model.withdrawn', {
				of: model.id,
				itemId,
				payload: { model: model.name, why }
			});
		return { held: items.length };
	});
}
