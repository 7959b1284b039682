import { and, asc, desc, eq, inArray, isNull, or } from 'drizzle-orm';
import { parseEn, parseUs } from '../../../core/filters/filter-code.ts';
import { type FilterRole, isMarked } from '../../../core/filters/stock.ts';
import type { Bed } from '../../../core/filters/wheeler-jonas.ts';
import { readable } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { filterLayer, filterLot, filterModel, filterPair, item, user } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { tellAtOnce } from '../notices/urgent.ts';
import { pairTag } from './opening.ts';

/** Every model with its lots, what is usable of them and whether more should be bought. */
export async function store(context: Reader) {
	const asOf = todayOf(context);
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
	requestId: string;
	id: string;
	/** 0 for a new model; else the version that the page was loaded with. */
	version: number;
	maker: string;
	name: string;
	/** Left out: a filter. */
	role?: FilterRole;
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
	const { requestId, ...content } = input;
	const { id, version, ...values } = content;
	const asked = { id: requestId, content };
	try {
		await write(context, 'keep the stores', asked, async (at) => {
			const { tx } = at;
			checkModel(input);
			const [held] = await tx
				.select()
				.from(filterModel)
				.where(eq(filterModel.id, id))
				.for('update');
			if (held && held.version !== version)
				throw new Refusal(
					'conflict',
					`${held.name} was changed meanwhile. Nothing was written over; load it again.`
				);
			if (held)
				await tx
					.update(filterModel)
					.set({ ...values, version: version + 1 })
					.where(eq(filterModel.id, id));
			else await tx.insert(filterModel).values({ id, ...values });
			at.record(held ? 'filter-model.changed' : 'filter-model.added', {
				of: id,
				payload: values
			});
		});
	} catch (error) {
		if (brokenConstraint(error)?.startsWith('filter_model_name'))
			throw new Refusal('conflict', `There is a filter named ${input.name} already.`, 'name');
		throw error;
	}
}

function checkModel(input: ModelInput): void {
	if (input.codeEn && !parseEn(input.codeEn))
		throw new Refusal(
			'invalid',
			`“${input.codeEn}” is no EN marking such as A2B2E2K2-P3, AX or P3.`,
			'codeEn'
		);
	if (input.codeUs && !parseUs(input.codeUs))
		throw new Refusal(
			'invalid',
			`“${input.codeUs}” is no US marking such as OV/AG-P100.`,
			'codeUs'
		);
	if (isMarked(input.role ?? 'filter') && !input.codeEn && !input.codeUs)
		throw new Refusal('invalid', 'Enter the marking of at least one scheme.', 'codeEn');
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
export async function receiveLot(context: Context, input: Delivery): Promise<void> {
	const asked = { id: input.id, content: input };
	await write(context, 'keep the stores', asked, async (at) => {
		const { tx } = at;
		if (input.useBy < at.today)
			throw new Refusal(
				'invalid',
				`Its use-by date of ${readable(input.useBy)} has passed: it is not taken into the store.`,
				'useBy'
			);
		const [model] = await tx
			.select()
			.from(filterModel)
			.where(eq(filterModel.id, input.modelId))
			.for('update');
		if (!model) throw new Refusal('not found', 'There is no such filter.', 'modelId');
		const [held] = await tx
			.select()
			.from(filterLot)
			.where(and(eq(filterLot.modelId, model.id), eq(filterLot.lot, input.lot)))
			.for('update');
		if (held?.recalledAt)
			throw new Refusal('conflict', `Lot ${held.lot} is recalled: ${held.recallReason}.`, 'lot');
		if (held && held.useBy !== input.useBy)
			throw new Refusal(
				'invalid',
				`Lot ${held.lot} is in the store with the use-by date ${readable(held.useBy)}. Look at the pack again.`,
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
		at.record('filter-lot.received', {
			of: held?.id ?? input.id,
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
	if (!row) throw new Refusal('not found', 'There is no such lot.');
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

/** Pairs of which the filters, or what sits over them, came out of a lot. */
const wornFrom = (tx: Connection, lotId: string) =>
	or(
		eq(filterPair.lotId, lotId),
		inArray(
			filterPair.id,
			tx
				.select({ id: filterLayer.pairId })
				.from(filterLayer)
				.where(and(eq(filterLayer.lotId, lotId), isNull(filterLayer.removedAt)))
		)
	);

/** Recalls a lot: nothing more is opened from it, and every item that wears it is held at once. */
export function recallLot(
	context: Context,
	input: { requestId: string; id: string; reason: string }
): Promise<{ held: string[] }> {
	const { requestId, ...content } = input;
	return write(context, 'recall a lot', { id: requestId, content }, async (at) => {
		const { tx } = at;
		if (!input.reason.trim())
			throw new Refusal('invalid', 'Say why, and who asked for the recall.', 'reason');
		const [lot] = await tx.select().from(filterLot).where(eq(filterLot.id, input.id)).for('update');
		if (!lot) throw new Refusal('not found', 'There is no such lot.');
		const worn = await tx
			.select({ itemId: item.id, tag: item.tag })
			.from(filterPair)
			.innerJoin(item, eq(item.id, filterPair.itemId))
			.where(and(wornFrom(tx, lot.id), isNull(filterPair.discardedAt)))
			.orderBy(asc(item.tag));
		if (!lot.recalledAt) {
			await tx
				.update(filterLot)
				.set({
					recalledAt: at.now,
					recalledBy: at.actor.id,
					recallReason: input.reason.trim()
				})
				.where(eq(filterLot.id, lot.id));
			at.changed(...worn.map((row) => row.itemId));
			at.record('filter-lot.recalled', {
				of: lot.id,
				payload: { lot: lot.lot, reason: input.reason.trim(), items: worn.map((row) => row.tag) }
			});
			for (const row of worn)
				at.record('filters.recalled', {
					of: lot.id,
					itemId: row.itemId,
					payload: { lot: lot.lot, reason: input.reason.trim() }
				});
			await tellAtOnce(at, {
				says: `Lot ${lot.lot} of filters was recalled. ${input.reason.trim()}`,
				itemIds: worn.map((row) => row.itemId),
				href: `/filters/lots/${lot.id}`
			});
		}
		return { held: worn.map((row) => row.tag) };
	});
}

/** Takes sealed filters out of the store: past their date, damaged, recalled. */
export function disposeLot(
	context: Context,
	input: { requestId: string; id: string; seen: number; why: string }
): Promise<void> {
	const { requestId, ...content } = input;
	return write(context, 'keep the stores', { id: requestId, content }, async (at) => {
		const { tx } = at;
		if (!input.why.trim()) throw new Refusal('invalid', 'Say why they go.', 'why');
		const [lot] = await tx.select().from(filterLot).where(eq(filterLot.id, input.id)).for('update');
		if (!lot) throw new Refusal('not found', 'There is no such lot.');
		if (lot.sealedQuantity === 0) return;
		if (lot.sealedQuantity !== input.seen)
			throw new Refusal(
				'conflict',
				`${lot.sealedQuantity} are in the store now, not ${input.seen}. Look again.`
			);
		await tx.update(filterLot).set({ sealedQuantity: 0 }).where(eq(filterLot.id, lot.id));
		at.record('filter-lot.disposed', {
			of: lot.id,
			payload: { lot: lot.lot, quantity: input.seen, why: input.why.trim() }
		});
	});
}
