import { desc, eq } from 'drizzle-orm';
import { checkMinutes, type DiscardReason } from '../../../core/filters/ledger.ts';
import { shortestMin } from '../../../core/filters/plan-life.ts';
import { readable } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { filterPair, filterWear, hazardPlan, item } from '../db/schema/index.ts';
import { planPage } from '../hazards/plans.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readerOf, type Work, write } from '../kernel/write.ts';
import { servedKind } from '../register/sets.ts';
import { ledgerOf, type PairRow, pairChange, wearsOf } from './change.ts';
import { discard, lifeOf, pairRows, pairTag } from './opening.ts';

/** The number on a pair's label; undefined when the text is none. */
export function pairNumber(text: string): number | undefined {
	const match = /^FP-?0*(\d{1,9})$/i.exec(text.trim());
	return match ? Number(match[1]) : undefined;
}

/** An opened pair by its label. @throws Refusal where none carries it */
async function pairByLabel(db: Connection, label: string) {
	const number = pairNumber(label);
	if (number === undefined)
		throw new Refusal('not found', `“${label}” is no label of a pair such as FP-0012.`);
	const [row] = await pairRows(db).where(eq(filterPair.number, number));
	if (!row) throw new Refusal('not found', `No opened pair carries the label ${pairTag(number)}.`);
	return { ...row, tag: pairTag(number) };
}

/** The label of a pair. @throws Refusal where there is no such pair */
export async function labelOfPair(db: Connection, id: string): Promise<string> {
	const [row] = await db
		.select({ number: filterPair.number })
		.from(filterPair)
		.where(eq(filterPair.id, id));
	if (!row) throw new Refusal('not found', 'There is no such pair.');
	return pairTag(row.number);
}

/** An opened pair by its label, with its ledger, its change date and the tasks it may be worn for. */
export async function pairPage(context: Context, tag: string) {
	const { db } = context;
	const row = await pairByLabel(db, tag);
	const wears = (await wearsOf(db, [row.pair.id])).get(row.pair.id) ?? [];
	const plans = await db
		.select({ id: hazardPlan.id, number: hazardPlan.number, task: hazardPlan.task })
		.from(hazardPlan)
		.orderBy(desc(hazardPlan.changedAt))
		.limit(200);
	return {
		...row,
		asOf: todayOf(context),
		wears,
		ledger: ledgerOf(wears),
		change: pairChange({ ...row, wears }),
		plans
	};
}

export interface WearInput {
	id: string;
	tag: string;
	planId: string;
	wornOn: string;
	minutes: number;
}

/** Enters a task that a pair was worn for: its minutes over the life at that task's concentrations. */
export function addWear(
	context: Context,
	input: WearInput
): Promise<{ used: number; changeOn: string }> {
	const asked = { id: input.id, content: input };
	return write(context, 'open filters', asked, async (at) => {
		checkMinutes(input.minutes);
		const { pair, model, tag } = await lockPair(at, input.tag);
		if (input.wornOn < pair.openedOn)
			throw new Refusal('invalid', `The pair was opened on ${readable(pair.openedOn)}.`, 'wornOn');
		if (input.wornOn > at.today)
			throw new Refusal('invalid', 'This day has not come yet.', 'wornOn');
		if (pair.discardedAt) throw new Refusal('conflict', `${tag} was taken out of use meanwhile.`);
		if (pair.sealedUntil)
			throw new Refusal('conflict', `${tag} stays sealed: once worn it is taken out of use.`);
		const plan = await planPage(readerOf(at), input.planId);
		return wearIn(at, { pair, model }, plan, input);
	});
}

/** Enters into the ledger of a pair that it was worn for a task, in the write of what says so. */
export async function wearIn(
	at: Work,
	{ pair, model }: Pick<PairRow, 'pair' | 'model'>,
	plan: Awaited<ReturnType<typeof planPage>>,
	worn: { id: string; wornOn: string; minutes: number }
): Promise<{ used: number; changeOn: string }> {
	const { tx } = at;
	const minutes = Math.round(worn.minutes);
	const life = lifeOf(
		model,
		plan.decision,
		plan.inForce,
		pair.filters,
		await servedKind(tx, pair.itemId)
	);
	const lifeMin = shortestMin(life.parts);
	await tx.insert(filterWear).values({
		id: worn.id,
		pairId: pair.id,
		planId: plan.plan.id,
		task: plan.plan.task,
		wornOn: worn.wornOn,
		minutes,
		lifeMin,
		enteredBy: at.actor.id,
		enteredAt: at.now
	});
	at.changed(pair.itemId);
	const wears = (await wearsOf(tx, [pair.id])).get(pair.id) ?? [];
	const { used } = ledgerOf(wears);
	at.record('filters.worn', {
		of: pair.id,
		itemId: pair.itemId,
		payload: {
			pair: pairTag(pair.number),
			task: plan.plan.task,
			minutes,
			on: worn.wornOn,
			lifeMin,
			used: Number.isFinite(used) ? Number(used.toFixed(4)) : null
		}
	});
	return { used, changeOn: pairChange({ pair, model, wears }).changeOn };
}

/** Takes an opened pair out of use for a reason. */
export function discardPair(
	context: Context,
	input: { requestId: string; tag: string; reason: DiscardReason }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'open filters', { id, content }, async (at) => {
		const { pair, tag } = await lockPair(at, input.tag);
		if (pair.discardedAt) return;
		await discard(at, pair, input.reason);
		at.changed(pair.itemId);
		at.record('filters.discarded', {
			of: pair.id,
			itemId: pair.itemId,
			payload: { pair: tag, why: input.reason }
		});
	});
}

/** A pair by its label that nobody else changes until the transaction ends: the mask it is on is locked. */
export async function lockPair({ tx }: Work, label: string) {
	const row = await pairByLabel(tx, label);
	await tx.select({ id: item.id }).from(item).where(eq(item.id, row.pair.itemId)).for('update');
	// It may have been discarded while the lock was waited for.
	return pairByLabel(tx, label);
}
