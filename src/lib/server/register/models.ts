import { and, asc, count, eq, inArray, isNull } from 'drizzle-orm';
import { airwayOf, FAMILIES } from '../../../core/data/families.ts';
import { recordOf } from '../../../core/data/family-records.ts';
import { checkCard, readingLimits } from '../../../core/register/model-card.ts';
import { modelChanges, type ModelSaid, sheetOf } from '../../../core/register/model-sheet.ts';
import type { Connection } from '../db/client.ts';
import { item, itemModel } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { tellAtOnce } from '../notices/urgent.ts';
import { brokenConstraint, Refusal, stale } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';

/** Models with how many items of each are in use. */
export const listModels = (db: Connection) =>
	db
		.select({ model: itemModel, inUse: count(item.id) })
		.from(itemModel)
		.leftJoin(item, and(eq(item.modelId, itemModel.id), isNull(item.retiredOn)))
		.groupBy(itemModel.id)
		.orderBy(asc(itemModel.family), asc(itemModel.name));

export interface ModelInput extends ModelSaid {
	requestId: string;
	id: string;
	/** 0 for a new one; else the version that the page was loaded with. */
	version: number;
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
			const [before] = await tx
				.select()
				.from(itemModel)
				.where(eq(itemModel.id, input.id))
				.for('update');
			if (before && before.family !== input.family)
				throw new Refusal('invalid', 'The family of a model is never changed.', 'family');
			if ((before?.version ?? 0) !== input.version) throw stale('model');
			const { id, version: _, ...said } = content;
			const values = { ...said, card: checkCard(input.card, input.family) };
			if (before)
				await tx
					.update(itemModel)
					.set({ ...values, version: before.version + 1 })
					.where(eq(itemModel.id, id));
			else await tx.insert(itemModel).values({ id, ...values });
			if (before && movesItems(before, values)) {
				const items = await tx.select({ id: item.id }).from(item).where(eq(item.modelId, id));
				at.changed(...items.map((one) => one.id));
			}
			at.record(before ? 'model.changed' : 'model.added', {
				of: id,
				payload: { ...values, ...(before ? { changes: modelChanges(before, values) } : {}) }
			});
		});
	} catch (error) {
		if (brokenConstraint(error))
			throw new Refusal('conflict', `There is a model ${input.name} already.`, 'name');
		throw error;
	}
}

/** Whether a change reaches its items: how many filters make one complete, and within what its readings are followed. */
function movesItems(before: ModelSaid, after: ModelSaid): boolean {
	const reach = (of: ModelSaid) => JSON.stringify([of.filterCount, of.mount, readingLimits(of)]);
	return reach(before) !== reach(after);
}

/** Models beside one another: their lines, and which of them differ. */
export async function compareModels(db: Connection, ids: readonly string[]) {
	const found = await db
		.select()
		.from(itemModel)
		.where(inArray(itemModel.id, [...ids]));
	const models = ids.flatMap((id) => found.find((model) => model.id === id) ?? []);
	const sheets = models.map((model) => sheetOf(model));
	const labels = [...new Set(sheets.flatMap((lines) => lines.map(({ label }) => label)))];
	return {
		models: models.map(({ id, name, family }) => ({ id, name, family })),
		// Their names head the columns.
		lines: labels
			.filter((label) => label !== 'Model')
			.flatMap((label) => {
				const values = sheets.map(
					(lines) => lines.find((line) => line.label === label)?.value ?? ''
				);
				return values.some(Boolean) ? [{ label, values, differs: new Set(values).size > 1 }] : [];
			})
	};
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
		await tellAtOnce(at, {
			says: `${model.name} was withdrawn by its maker. ${why}`,
			itemIds: ids,
			href: `/items/models/${model.id}`
		});
		return { held: items.length };
	});
}
