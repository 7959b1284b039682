import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { parseEn, parseUs } from '../../core/filters/filter-code.ts';
import type { Bed } from '../../core/filters/wheeler-jonas.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { filterLot, filterModel, filterPair, item, user } from './db/schema/index.ts';
import { brokenConstraint, Fault } from './errors.ts';
import { pairTag } from './filters.ts';
import { rebuildState } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** Every model with its lots, what is usable of them and whether more should be bought. */
export async function store(context: Pick<Context, 'db' | 'now'>, site: Site) {
	const asOf = dayAt(context.now(), site.timeZone);
	const [models, lots] = await Promise.all([
		context.db.select().from(filterModel).orderBy(asc(filterModel.name)),
		context.db.select().from(filterLot).orderBy(asc(filterLot.useBy))
	]);
	return {
		asOf,
		models: models.map((model) => {
			const own = lots.filter((lot) => lot.modelId === model.id);
			const usable = own
				.filter((lot) => !lot.recalledAt && lot.useBy >= asOf)
				.reduce((sum, lot) => sum + lot.sealedQuantity, 0);
			return { model, lots: own, usable, buy: usable < model.reorderLevel };
		})
	};
}

export interface ModelInput {
	id: string;
	/** 0 for a new model; else the version that the page was loaded with. */
	version: number;
	maker: string;
	name: string;
	mount: string;
	codeEn: string | null;
	codeUs: string | null;
	massG: number;
	bed: Partial<Bed> | null;
	openedMonths: number | null;
	reorderLevel: number;
}

/** Saves a filter model. */
export async function saveModel(context: Context, input: ModelInput): Promise<void> {
	requireRole(context.actor, 'keep the filter store');
	if (input.codeEn && !parseEn(input.codeEn))
		throw new Fault(
			'invalid',
			`“${input.codeEn}” is no EN marking such as A2B2E2K2-P3, AX or P3.`,
			'codeEn'
		);
	if (input.codeUs && !parseUs(input.codeUs))
		throw new Fault('invalid', `“${input.codeUs}” is no US marking such as OV/AG-P100.`, 'codeUs');
	if (!input.codeEn && !input.codeUs)
		throw new Fault('invalid', 'Enter the marking of at least one scheme.', 'codeEn');
	const { id, version, ...values } = input;
	try {
		await inTransaction(context, async (tx) => {
			const [held] = await tx
				.select()
				.from(filterModel)
				.where(eq(filterModel.id, id))
				.for('update');
			if (held && version === 0) return;
			if (held && held.version !== version)
				throw new Fault(
					'conflict',
					`${held.name} was changed meanwhile. Nothing was written over; load it again.`
				);
			if (held)
				await tx
					.update(filterModel)
					.set({ ...values, version: version + 1 })
					.where(eq(filterModel.id, id));
			else await tx.insert(filterModel).values({ id, ...values });
			await record(tx, context.actor.id, {
				action: held ? 'filter-model.changed' : 'filter-model.added',
				subject: `filter-model:${id}`,
				payload: { ...values }
			});
		});
	} catch (error) {
		if (brokenConstraint(error)?.startsWith('filter_model_name'))
			throw new Fault('conflict', `There is a filter named ${input.name} already.`, 'name');
		throw error;
	}
}

export interface Delivery {
	id: string;
	modelId: string;
	lot: string;
	useBy: string;
	quantity: number;
	location: string;
}

/** Takes sealed filters into the store; more of a lot that is there already adds to it. */
export async function receiveLot(context: Context, site: Site, input: Delivery): Promise<void> {
	requireRole(context.actor, 'keep the filter store');
	const asOf = dayAt(context.now(), site.timeZone);
	if (input.useBy < asOf)
		throw new Fault(
			'invalid',
			`Its use-by date of ${input.useBy} has passed: it is not taken into the store.`,
			'useBy'
		);
	await inTransaction(context, async (tx) => {
		const [model] = await tx
			.select()
			.from(filterModel)
			.where(eq(filterModel.id, input.modelId))
			.for('update');
		if (!model) throw new Fault('not found', 'There is no such filter.', 'modelId');
		const [held] = await tx
			.select()
			.from(filterLot)
			.where(and(eq(filterLot.modelId, model.id), eq(filterLot.lot, input.lot)))
			.for('update');
		if (held?.id === input.id) return;
		if (held?.recalledAt)
			throw new Fault('conflict', `Lot ${held.lot} is recalled: ${held.recallReason}.`, 'lot');
		if (held && held.useBy !== input.useBy)
			throw new Fault(
				'invalid',
				`Lot ${held.lot} is in the store with the use-by date ${held.useBy}. Look at the pack again.`,
				'useBy'
			);
		if (held)
			await tx
				.update(filterLot)
				.set({ sealedQuantity: held.sealedQuantity + input.quantity })
				.where(eq(filterLot.id, held.id));
		else
			await tx.insert(filterLot).values({
				id: input.id,
				modelId: model.id,
				lot: input.lot,
				useBy: input.useBy,
				sealedQuantity: input.quantity,
				location: input.location
			});
		await record(tx, context.actor.id, {
			action: 'filter-lot.received',
			subject: `filter-lot:${held?.id ?? input.id}`,
			payload: { filter: model.name, lot: input.lot, useBy: input.useBy, quantity: input.quantity }
		});
	});
}

/** A lot with everything that was opened from it. */
export async function lotPage(db: Connection, id: string) {
	const [row] = await db
		.select({ lot: filterLot, model: filterModel })
		.from(filterLot)
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.where(eq(filterLot.id, id));
	if (!row) throw new Fault('not found', 'There is no such lot.');
	const pairs = await db
		.select({ pair: filterPair, itemTag: item.tag, by: user.name })
		.from(filterPair)
		.innerJoin(item, eq(item.id, filterPair.itemId))
		.innerJoin(user, eq(user.id, filterPair.openedBy))
		.where(eq(filterPair.lotId, id))
		.orderBy(desc(filterPair.openedOn))
		.limit(500);
	return { ...row, pairs: pairs.map((p) => ({ ...p, tag: pairTag(p.pair.number) })) };
}

/** Recalls a lot: nothing more is opened from it, and every item that wears it is held at once. */
export async function recallLot(
	context: Context,
	site: Site,
	input: { id: string; reason: string }
): Promise<{ held: string[] }> {
	requireRole(context.actor, 'recall a lot');
	if (!input.reason.trim())
		throw new Fault('invalid', 'Say why, and who asked for the recall.', 'reason');
	return inTransaction(context, async (tx) => {
		const [lot] = await tx.select().from(filterLot).where(eq(filterLot.id, input.id)).for('update');
		if (!lot) throw new Fault('not found', 'There is no such lot.');
		const worn = await tx
			.select({ itemId: item.id, tag: item.tag })
			.from(filterPair)
			.innerJoin(item, eq(item.id, filterPair.itemId))
			.where(and(eq(filterPair.lotId, lot.id), isNull(filterPair.discardedAt)))
			.orderBy(asc(item.tag));
		if (!lot.recalledAt) {
			await tx
				.update(filterLot)
				.set({
					recalledAt: context.now(),
					recalledBy: context.actor.id,
					recallReason: input.reason.trim()
				})
				.where(eq(filterLot.id, lot.id));
			await rebuildState(
				tx,
				worn.map((row) => row.itemId),
				site
			);
			await record(tx, context.actor.id, {
				action: 'filter-lot.recalled',
				subject: `filter-lot:${lot.id}`,
				payload: { lot: lot.lot, reason: input.reason.trim(), items: worn.map((row) => row.tag) }
			});
			for (const row of worn)
				await record(tx, context.actor.id, {
					action: 'filters.recalled',
					subject: `filter-lot:${lot.id}`,
					itemId: row.itemId,
					payload: { lot: lot.lot, reason: input.reason.trim() }
				});
		}
		return { held: worn.map((row) => row.tag) };
	});
}

/** Takes sealed filters out of the store: past their date, damaged, recalled. */
export async function disposeLot(
	context: Context,
	input: { id: string; seen: number; why: string }
): Promise<void> {
	requireRole(context.actor, 'keep the filter store');
	if (!input.why.trim()) throw new Fault('invalid', 'Say why they go.', 'why');
	await inTransaction(context, async (tx) => {
		const [lot] = await tx.select().from(filterLot).where(eq(filterLot.id, input.id)).for('update');
		if (!lot) throw new Fault('not found', 'There is no such lot.');
		if (lot.sealedQuantity === 0) return;
		if (lot.sealedQuantity !== input.seen)
			throw new Fault(
				'conflict',
				`${lot.sealedQuantity} are in the store now, not ${input.seen}. Look again.`
			);
		await tx.update(filterLot).set({ sealedQuantity: 0 }).where(eq(filterLot.id, lot.id));
		await record(tx, context.actor.id, {
			action: 'filter-lot.disposed',
			subject: `filter-lot:${lot.id}`,
			payload: { lot: lot.lot, quantity: input.seen, why: input.why.trim() }
		});
	});
}
