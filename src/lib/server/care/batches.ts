import { and, asc, eq, isNull } from 'drizzle-orm';
import {
	type BathItem,
	type BatchStep,
	type BrokenDecision,
	BATCH_STEPS,
	type Cleaner,
	contactAsked,
	judgeBatch,
	neverMixed,
	refusedFromBath,
	strictest
} from '../../../core/care/batch.ts';
import { doseOf, strengthLeft } from '../../../core/care/dilution.ts';
import { BATH_AGENTS, type Drying } from '../../../core/care/wash-check.ts';
import { daysBetween, readable } from '../../../core/plan/calendar.ts';
import { bring, lockItems, moveTo, offItsSet, openRow } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import { lastDirtOf } from '../db/queries/care.ts';
import {
	item,
	itemModel,
	stockContainer,
	washBatch,
	washBatchItem,
	washReading
} from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { steadyAt } from '../kernel/steady.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorised } from '../people/authorisations.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';

type Batch = typeof washBatch.$inferSelect;
const MOST_IN_BATCH = 60;
const MOST_LITRES = 500;
const MOST_ML = 20_000;

/** Begins a batch. @returns its number */
export function beginBatch(
	context: Context,
	input: { id: string; cleaner: Cleaner }
): Promise<{ number: number }> {
	return write(context, 'wash', { id: input.id, content: input }, async (at) => {
		const [row] = await at.tx
			.insert(washBatch)
			.values({
				id: input.id,
				cleaner: input.cleaner,
				startedBy: at.actor.id,
				startedAt: at.now
			})
			.returning({ number: washBatch.number });
		const number = row?.number ?? 0;
		at.record('batch.begun', { of: input.id, payload: { number } });
		return { number };
	});
}

/** A batch that nobody else changes until the transaction ends. @throws Refusal where there is none, or it has ended */
async function lockBatch({ tx }: Work, id: string): Promise<Batch> {
	const [row] = await tx.select().from(washBatch).where(eq(washBatch.id, id)).for('update');
	if (!row) throw new Refusal('not found', 'There is no such batch.');
	if (row.endedAt) throw new Refusal('conflict', `Batch ${row.number} has ended.`);
	return row;
}

/** What lies in a batch. */
export async function itemsIn(db: Connection, batchId: string) {
	const rows = await db
		.select({
			row: item,
			model: itemModel.name,
			card: itemModel.card,
			addedAt: washBatchItem.addedAt
		})
		.from(washBatchItem)
		.innerJoin(item, eq(item.id, washBatchItem.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.where(and(eq(washBatchItem.batchId, batchId), isNull(washBatchItem.takenOutAt)))
		.orderBy(asc(washBatchItem.addedAt), asc(item.tag));
	return rows.map(({ row, ...rest }) => ({ ...rest, item: row }));
}

export const asBathItem = (
	{ item: row, card }: { item: typeof item.$inferSelect; card: BathItem['card'] },
	ownBath: string | null = null
): BathItem => ({ tag: row.tag, family: row.family, card, ownBath });

/** Scans something into a batch, or says everything that keeps it out. */
export function intoBatch(
	context: Context,
	input: { requestId: string; batchId: string; tag: string }
): Promise<{ tag: string; count: number }> {
	const { requestId: id, ...content } = input;
	return write(context, 'wash', { id, content }, async (at) => {
		const { tx } = at;
		const batch = await lockBatch(at, input.batchId);
		const { item: found, model } = await itemByTag(tx, input.tag);
		refuseRetired(found, 'tag');
		await lockItems(tx, [found.id]);
		await requireAuthorised(at, { job: 'wash', family: found.family, modelId: found.modelId });
		const inIt = await itemsIn(tx, batch.id);
		if (inIt.some((one) => one.item.id === found.id)) return { tag: found.tag, count: inIt.length };
		if (batch.step !== 'load')
			throw new Refusal(
				'conflict',
				`Batch ${batch.number} is past loading. ${found.tag} goes into the next one.`,
				'tag'
			);
		if (inIt.length >= MOST_IN_BATCH)
			throw new Refusal('conflict', `At most ${MOST_IN_BATCH} in one batch.`, 'tag');
		const held = await openRow(tx, found.id);
		if (held.where === 'issued')
			throw new Refusal(
				'conflict',
				`${found.tag} is out with wearer ${held.number} on record: scan it back first.`,
				'tag'
			);
		const ownBath = await lastDirtOf(tx, found.id);
		const against = refusedFromBath(asBathItem({ item: found, card: model.card }, ownBath), {
			agent: batch.agent,
			onlyFor: batch.onlyFor,
			items: inIt.map((one) => asBathItem(one))
		});
		if (against.length)
			throw new Refusal('conflict', against.map(({ text }) => text).join(' '), 'tag');
		await offItsSet(at, found);
		if (ownBath !== null && batch.onlyFor === null)
			await tx.update(washBatch).set({ onlyFor: ownBath }).where(eq(washBatch.id, batch.id));
		await tx.insert(washBatchItem).values({
			id: crypto.randomUUID(),
			batchId: batch.id,
			itemId: found.id,
			addedAt: at.now
		});
		await moveTo(at, { ...found, setId: null }, { where: 'wash', batchId: batch.id });
		at.record('batch.item', {
			of: batch.id,
			itemId: found.id,
			payload: { number: batch.number, in: true }
		});
		return { tag: found.tag, count: inIt.length + 1 };
	});
}

/** Takes something out of a batch again, before the bath is filled. */
export function outOfBatch(
	context: Context,
	input: { requestId: string; batchId: string; tag: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'wash', { id, content }, async (at) => {
		const batch = await lockBatch(at, input.batchId);
		const one = (await itemsIn(at.tx, batch.id)).find((x) => x.item.tag === input.tag);
		if (!one) return;
		if (batch.step !== 'load')
			throw new Refusal('conflict', `Batch ${batch.number} is past loading.`, 'tag');
		await at.tx
			.update(washBatchItem)
			.set({ takenOutAt: at.now })
			.where(
				and(
					eq(washBatchItem.batchId, batch.id),
					eq(washBatchItem.itemId, one.item.id),
					isNull(washBatchItem.takenOutAt)
				)
			);
		await moveTo(at, one.item, { where: 'returned' });
		at.record('batch.item', {
			of: batch.id,
			itemId: one.item.id,
			payload: { number: batch.number, in: false }
		});
	});
}

/** Keeps how warm a bath is. */
export function readBath(
	context: Context,
	input: { id: string; batchId: string; celsius: number; measured: boolean }
): Promise<void> {
	return write(context, 'wash', { id: input.id, content: input }, async (at) => {
		const batch = await lockBatch(at, input.batchId);
		if (!(input.celsius >= 0 && input.celsius <= 100))
			throw new Refusal('invalid', 'From 0 to 100 °C.', 'celsius');
		await at.tx.insert(washReading).values({
			id: input.id,
			batchId: batch.id,
			celsius: input.celsius,
			measured: input.measured,
			takenBy: at.actor.id,
			takenAt: at.now
		});
		at.record('batch.read', {
			of: batch.id,
			payload: { number: batch.number, celsius: input.celsius, measured: input.measured }
		});
	});
}

/** What a step wants to know. */
export interface StepInput {
	requestId: string;
	batchId: string;
	/** The step that is gone on to. */
	to: BatchStep;
	/** To disinfect: from which container, how much into how much water. */
	containerId?: string | undefined;
	volumeL?: number | undefined;
	stockMl?: number | undefined;
	/** To dry. */
	rinsed?: boolean | undefined;
	driedBy?: Drying | undefined;
	cabinetC?: number | null | undefined;
	/** To its end, where a limit was broken. */
	decision?: BrokenDecision | undefined;
}

export type Stepped =
	| { step: BatchStep; outcome: null }
	| { step: 'ended'; outcome: 'pass' | 'fail' }
	/** A limit was broken: what is done with its items is asked first. */
	| { step: 'dry'; outcome: 'fail'; reasons: string[] };

/** Goes on to the next step of a batch; the clock of the server times each. */
export function stepBatch(context: Context, input: StepInput): Promise<Stepped> {
	const { requestId: id, ...content } = input;
	return write(context, 'wash', { id, content }, async (at): Promise<Stepped> => {
		const batch = await lockBatch(at, input.batchId);
		if (batch.step === input.to) return { step: batch.step, outcome: null };
		const next = BATCH_STEPS[BATCH_STEPS.indexOf(batch.step) + 1];
		if (input.to !== next)
			throw new Refusal(
				'conflict',
				`Batch ${batch.number} is at another step meanwhile. Load the page again.`
			);
		const inIt = await itemsIn(at.tx, batch.id);
		if (inIt.length === 0)
			throw new Refusal('invalid', 'Nothing lies in it yet: scan something in.', 'tag');
		if (input.to === 'wash') return goOn(at, batch, { step: 'wash', washedAt: await steadyAt(at) });
		if (input.to === 'disinfect') return dose(at, batch, inIt, input);
		if (input.to === 'rinse')
			return goOn(at, batch, { step: 'rinse', rinsedAt: await steadyAt(at) });
		if (input.to === 'dry') return dry(at, batch, inIt, input);
		return end(at, batch, inIt, input);
	});
}

async function goOn(
	at: Work,
	batch: Batch,
	set: Partial<Batch> & { step: BatchStep }
): Promise<Stepped> {
	await at.tx
		.update(washBatch)
		.set({ ...set, version: batch.version + 1 })
		.where(eq(washBatch.id, batch.id));
	at.record('batch.step', {
		of: batch.id,
		payload: {
			number: batch.number,
			step: set.step,
			...(set.agent ? { agent: set.agent, dosePpm: set.dosePpm ?? null } : {})
		}
	});
	return { step: set.step, outcome: null };
}

type InIt = Awaited<ReturnType<typeof itemsIn>>;

/** Puts the agent into the bath, from a container that has enough of it. */
async function dose(at: Work, batch: Batch, inIt: InIt, input: StepInput): Promise<Stepped> {
	const { tx } = at;
	const { containerId, volumeL, stockMl } = input;
	if (!containerId) throw new Refusal('invalid', 'Choose the stock.', 'containerId');
	if (!(volumeL && volumeL > 0 && volumeL <= MOST_LITRES))
		throw new Refusal('invalid', `Litres of the bath, up to ${MOST_LITRES}.`, 'volumeL');
	if (!(stockMl && stockMl > 0 && stockMl <= MOST_ML))
		throw new Refusal('invalid', `Millilitres of stock, up to ${MOST_ML}.`, 'stockMl');
	const [stock] = await tx
		.select()
		.from(stockContainer)
		.where(eq(stockContainer.id, containerId))
		.for('update');
	if (!stock || stock.closedOn)
		throw new Refusal('not found', 'There is no such stock any more.', 'containerId');
	const mixed = neverMixed(batch.cleaner, stock.agent);
	if (mixed) throw new Refusal('conflict', mixed, 'containerId');
	const { agents } = strictest(
		inIt.map((one) => asBathItem(one)),
		BATH_AGENTS
	);
	if (!agents.includes(stock.agent))
		throw new Refusal(
			'conflict',
			`Something in this batch does not take ${stock.agent}. All of it takes: ${agents.join(', ') || 'nothing in common'}.`,
			'containerId'
		);
	if (stock.expiresOn && stock.expiresOn < at.today)
		throw new Refusal(
			'conflict',
			`${stock.name} was to be used by ${readable(stock.expiresOn)}. Open another.`,
			'containerId'
		);
	if (stock.leftMl < stockMl)
		throw new Refusal(
			'conflict',
			`${stock.name} has ${Math.round(stock.leftMl)} mL left, ${stockMl} are wanted. Open another, or take two.`,
			'stockMl'
		);
	await tx
		.update(stockContainer)
		.set({ leftMl: stock.leftMl - stockMl, version: stock.version + 1 })
		.where(eq(stockContainer.id, stock.id));
	return goOn(at, batch, {
		step: 'disinfect',
		containerId: stock.id,
		agent: stock.agent,
		volumeL,
		stockMl,
		dosePpm: doseNow(stock, { volumeL, stockMl }, at.today),
		contactMin: contactAsked(stock.agent, stock.labelMin),
		dosedAt: await steadyAt(at)
	});
}

/** What stock gives in a bath by its strength on a day, ppm; null: its label decides. */
export function doseNow(
	stock: typeof stockContainer.$inferSelect,
	{ volumeL, stockMl }: { volumeL: number; stockMl: number },
	asOf: string
): number | null {
	const percent = percentNow(stock, asOf);
	return percent === null ? null : doseOf({ stockPercent: percent, volumeL }, stockMl);
}

/** Strength of a stock on a day, %; null: its label decides. */
export function percentNow(
	stock: Pick<typeof stockContainer.$inferSelect, 'percent' | 'halfLifeDays' | 'openedOn'>,
	asOf: string
): number | null {
	if (stock.percent === null) return null;
	if (stock.halfLifeDays === null) return stock.percent;
	return strengthLeft(
		stock.percent,
		Math.max(0, daysBetween(stock.openedOn, asOf)),
		stock.halfLifeDays
	);
}

async function dry(at: Work, batch: Batch, inIt: InIt, input: StepInput): Promise<Stepped> {
	if (input.rinsed === undefined)
		throw new Refusal('invalid', 'Say whether it was rinsed thoroughly.', 'rinsed');
	if (!input.driedBy) throw new Refusal('invalid', 'Say how it is dried.', 'driedBy');
	if (input.driedBy === 'cabinet' && input.cabinetC == null)
		throw new Refusal('invalid', 'How warm is the cabinet?', 'cabinetC');
	for (const one of inIt) await moveTo(at, one.item, { where: 'drying', batchId: batch.id });
	return goOn(at, batch, {
		step: 'dry',
		rinsed: input.rinsed,
		driedBy: input.driedBy,
		cabinetC: input.driedBy === 'cabinet' ? (input.cabinetC ?? null) : null,
		dryAt: at.now
	});
}

/** Judges a batch as it went and ends it; where it broke a limit, once it is said what is done with its items. */
async function end(at: Work, batch: Batch, inIt: InIt, input: StepInput): Promise<Stepped> {
	const { tx } = at;
	const readings = await tx
		.select({ celsius: washReading.celsius })
		.from(washReading)
		.where(eq(washReading.batchId, batch.id));
	const verdict = judgeBatch({
		items: inIt.map((one) => asBathItem(one)),
		readings: readings.map(({ celsius }) => celsius),
		agent: batch.agent ?? 'chlorine',
		dosePpm: batch.dosePpm,
		washedAt: batch.washedAt?.getTime() ?? 0,
		dosedAt: batch.dosedAt?.getTime() ?? 0,
		rinsedAt: batch.rinsedAt?.getTime() ?? 0,
		rinsed: batch.rinsed ?? false,
		driedBy: batch.driedBy ?? 'air',
		cabinetC: batch.cabinetC
	});
	const failed = verdict.outcome === 'fail';
	const reasons = verdict.reasons.map(({ text }) => text);
	if (failed && !input.decision) return { step: 'dry', outcome: 'fail', reasons };
	const decision = failed ? (input.decision ?? null) : null;
	if (decision === 'again' || decision === 'hold')
		for (const one of inIt) {
			const held = await openRow(tx, one.item.id);
			// Who was quicker has it: what went on meanwhile is not fetched back by a batch.
			if (held.where !== 'drying' || held.batchId !== batch.id) continue;
			if (decision === 'hold')
				await bring(at, one.item, { where: 'quarantine', note: `wash batch ${batch.number}` });
			else await bring(at, one.item, { where: 'returned' }, `wash batch ${batch.number}, again`);
		}
	await tx
		.update(washBatch)
		.set({
			step: 'ended',
			endedAt: at.now,
			endedBy: at.actor.id,
			outcome: verdict.outcome,
			reasons: verdict.reasons,
			decision,
			version: batch.version + 1
		})
		.where(eq(washBatch.id, batch.id));
	for (const one of inIt) at.changed(one.item.id);
	at.record('batch.ended', {
		of: batch.id,
		payload: {
			number: batch.number,
			outcome: verdict.outcome,
			items: inIt.length,
			reasons: failed ? reasons : [],
			...(decision ? { decision } : {})
		}
	});
	return { step: 'ended', outcome: verdict.outcome };
}

/** Gives a batch up: what lay in it waits for the wash again. */
export function giveUpBatch(
	context: Context,
	input: { requestId: string; batchId: string; why: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'wash', { id, content }, async (at) => {
		const batch = await lockBatch(at, input.batchId);
		const inIt = await itemsIn(at.tx, batch.id);
		if (inIt.length && !input.why.trim())
			throw new Refusal('invalid', 'Say why it is given up.', 'why');
		for (const one of inIt) {
			const held = await openRow(at.tx, one.item.id);
			if (held.batchId === batch.id)
				await moveTo(at, one.item, { where: 'returned' }, `batch given up: ${input.why.trim()}`);
		}
		await at.tx
			.update(washBatch)
			.set({
				step: 'ended',
				endedAt: at.now,
				endedBy: at.actor.id,
				outcome: 'given up',
				version: batch.version + 1
			})
			.where(eq(washBatch.id, batch.id));
		at.record('batch.ended', {
			of: batch.id,
			payload: {
				number: batch.number,
				outcome: 'given up',
				items: inIt.length,
				reasons: input.why.trim() ? [input.why.trim()] : []
			}
		});
	});
}
