import { and, asc, count, eq, isNull } from 'drizzle-orm';
import { INLETS, type DonningCard } from '../../core/data/blocking.ts';
import { FAMILIES, airwayOf } from '../../core/data/families.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { item, itemModel } from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

export type ModelRow = typeof itemModel.$inferSelect;
const CHUNK = 500;

/** Models with how many items of each are in use. */
export const listModels = (db: Connection) =>
	db
		.select({ model: itemModel, inUse: count(item.id) })
		.from(itemModel)
		.leftJoin(item, and(eq(item.modelId, itemModel.id), isNull(item.retiredOn)))
		.groupBy(itemModel.id)
		.orderBy(asc(itemModel.family), asc(itemModel.name));

export interface ModelInput {
	id: string;
	family: string;
	maker: string;
	name: string;
	mount: string;
	ratedBar: number | null;
	holdDropBar: number | null;
	donning: DonningCard | null;
	makerLines: { station: string; text: string }[];
}

/** Adds a model or changes what its maker says of it. The family of a model never changes. */
export async function saveItemModel(context: Context, input: ModelInput): Promise<void> {
	requireRole(context.actor, 'edit procedures');
	if (!FAMILIES.some((f) => f.family === input.family))
		throw new Fault('invalid', 'Choose the family.', 'family');
	const stations = airwayOf(input.family).stations.map((s) => s.key);
	const stray = input.makerLines.find((line) => !stations.includes(line.station));
	if (stray) throw new Fault('invalid', 'There is no such station on this airway.', 'makerLines');
	const inlet = input.donning?.inlet;
	if (inlet && !INLETS[input.family]?.includes(inlet))
		throw new Fault('invalid', 'This family has no such inlet.', 'inlet');
	try {
		await inTransaction(context, async (tx) => {
			const [before] = await tx.select().from(itemModel).where(eq(itemModel.id, input.id));
			if (before && before.family !== input.family)
				throw new Fault('invalid', 'The family of a model is never changed.', 'family');
			const { id, ...values } = input;
			if (before) await tx.update(itemModel).set(values).where(eq(itemModel.id, id));
			else await tx.insert(itemModel).values(input);
			await record(tx, context.actor.id, {
				action: before ? 'model.changed' : 'model.added',
				subject: `model:${id}`,
				payload: { ...values }
			});
		});
	} catch (error) {
		if (brokenConstraint(error))
			throw new Fault('conflict', `There is a model ${input.name} already.`, 'name');
		throw error;
	}
}

/** Holds every item of a model that its maker took from the market. It is not undone here: a maker who lets it back gives it a new name. */
export async function withdrawModel(
	context: Context,
	site: Site,
	input: { id: string; why: string }
): Promise<{ held: number }> {
	requireRole(context.actor, 'withdraw a model');
	const why = input.why.trim();
	if (!why) throw new Fault('invalid', 'Say what the maker’s notice says.', 'why');
	return inTransaction(context, async (tx) => {
		const [model] = await tx
			.select()
			.from(itemModel)
			.where(eq(itemModel.id, input.id))
			.for('update');
		if (!model) throw new Fault('not found', 'There is no such model.');
		const items = await tx
			.select({ id: item.id })
			.from(item)
			.where(and(eq(item.modelId, model.id), isNull(item.retiredOn)));
		if (model.withdrawnOn) return { held: items.length };
		await tx
			.update(itemModel)
			.set({ withdrawnOn: dayAt(context.now(), site.timeZone), withdrawnWhy: why })
			.where(eq(itemModel.id, model.id));
		const ids = items.map((row) => row.id);
		for (let i = 0; i < ids.length; i += CHUNK)
			await rebuildState(tx, ids.slice(i, i + CHUNK), site);
		for (const itemId of ids)
			await record(tx, context.actor.id, {
				action: 'model.withdrawn',
				subject: `model:${model.id}`,
				itemId,
				payload: { model: model.name, why }
			});
		return { held: items.length };
	});
}
