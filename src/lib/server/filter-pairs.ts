import { desc, eq } from 'drizzle-orm';
import { checkMinutes, type DiscardReason } from '../../core/filters/ledger.ts';
import { shortestMin } from '../../core/filters/plan-life.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import { filterPair, filterWear, hazardPlan, item } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { discard, lifeOf, pairRows, pairTag } from './filters.ts';
import { planPage } from './hazards.ts';
import { ledgerOf, pairChange, rebuildState, wearsOf } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

/** The number on a pair's label; undefined when the text is none. */
export function pairNumber(text: string): number | undefined {
	const match = /^FP-?0*(\d{1,9})$/i.exec(text.trim());
	return match ? Number(match[1]) : undefined;
}

/** An opened pair by its label, with its ledger, its change date and the tasks it may be worn for. */
export async function pairPage(context: Context, site: Site, tag: string) {
	const { db } = context;
	const number = pairNumber(tag);
	if (number === undefined)
		throw new Fault('not found', `“${tag}” is no label of a pair such as FP-0012.`);
	const [row] = await pairRows(db).where(eq(filterPair.number, number));
	if (!row) throw new Fault('not found', `No opened pair carries the label ${pairTag(number)}.`);
	const wears = (await wearsOf(db, [row.pair.id])).get(row.pair.id) ?? [];
	const plans = await db
		.select({ id: hazardPlan.id, number: hazardPlan.number, task: hazardPlan.task })
		.from(hazardPlan)
		.orderBy(desc(hazardPlan.changedAt))
		.limit(200);
	return {
		...row,
		tag: pairTag(number),
		asOf: dayAt(context.now(), site.timeZone),
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
export async function addWear(
	context: Context,
	site: Site,
	input: WearInput
): Promise<{ used: number; changeOn: string }> {
	requireRole(context.actor, 'open filters');
	checkMinutes(input.minutes);
	const before = await pairPage(context, site, input.tag);
	const { pair, model } = before;
	if (input.wornOn < pair.openedOn)
		throw new Fault('invalid', `The pair was opened on ${pair.openedOn}.`, 'wornOn');
	if (input.wornOn > before.asOf)
		throw new Fault('invalid', 'This day has not come yet.', 'wornOn');
	const plan = await planPage(context, site, input.planId);
	const life = lifeOf(model, plan.decision, plan.inForce, pair.filters);
	const lifeMin = shortestMin(life.parts);
	return inTransaction(context, async (tx) => {
		await tx.select({ id: item.id }).from(item).where(eq(item.id, pair.itemId)).for('update');
		const [again] = await tx.select().from(filterWear).where(eq(filterWear.id, input.id));
		if (!again) {
			const [held] = await tx.select().from(filterPair).where(eq(filterPair.id, pair.id));
			if (held?.discardedAt)
				throw new Fault('conflict', `${before.tag} was taken out of use meanwhile.`);
			await tx.insert(filterWear).values({
				id: input.id,
				pairId: pair.id,
				planId: plan.plan.id,
				task: plan.plan.task,
				wornOn: input.wornOn,
				minutes: Math.round(input.minutes),
				lifeMin,
				enteredBy: context.actor.id,
				enteredAt: context.now()
			});
			await rebuildState(tx, [pair.itemId], site);
		}
		const wears = (await wearsOf(tx, [pair.id])).get(pair.id) ?? [];
		const result = {
			used: ledgerOf(wears).used,
			changeOn: pairChange({ pair, model, wears }).changeOn
		};
		if (!again)
			await record(tx, context.actor.id, {
				action: 'filters.worn',
				subject: `pair:${pair.id}`,
				itemId: pair.itemId,
				payload: {
					pair: before.tag,
					task: plan.plan.task,
					minutes: Math.round(input.minutes),
					on: input.wornOn,
					lifeMin,
					used: Number.isFinite(result.used) ? Number(result.used.toFixed(4)) : null
				}
			});
		return result;
	});
}

/** Takes an opened pair out of use for a reason. */
export async function discardPair(
	context: Context,
	site: Site,
	input: { tag: string; reason: DiscardReason }
): Promise<void> {
	requireRole(context.actor, 'open filters');
	const { pair, tag } = await pairPage(context, site, input.tag);
	await inTransaction(context, async (tx) => {
		await tx.select({ id: item.id }).from(item).where(eq(item.id, pair.itemId)).for('update');
		const [held] = await tx.select().from(filterPair).where(eq(filterPair.id, pair.id));
		if (!held || held.discardedAt) return;
		await discard(tx, context, held, input.reason);
		await rebuildState(tx, [pair.itemId], site);
		await record(tx, context.actor.id, {
			action: 'filters.discarded',
			subject: `pair:${pair.id}`,
			itemId: pair.itemId,
			payload: { pair: tag, why: input.reason }
		});
	});
}
