import { asc, desc, eq, isNull } from 'drizzle-orm';
import { airwayOf } from '../../core/data/families.ts';
import { bedOf } from '../../core/filters/service-life.ts';
import { parseEn, type GasClass } from '../../core/filters/filter-code.ts';
import { EARLY_REASONS, earlyFlag, type DiscardReason } from '../../core/filters/ledger.ts';
import { planLife, type PlanLife } from '../../core/filters/plan-life.ts';
import { judgeStock, surplus, type FilterNeed } from '../../core/filters/stock.ts';
import type { HazardDecision } from '../../core/hazards/decision.ts';
import type { HazardFacts } from '../../core/hazards/facts.ts';
import { daysBetween } from '../../core/plan/calendar.ts';
import { record } from './audit.ts';
import { inTransaction, requireRole, type Context } from './context.ts';
import type { Connection } from './db/client.ts';
import { filterLot, filterModel, filterPair, hazardPlan, item, user } from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { planPage, raiseFlag } from './hazards.ts';
import { itemByTag, openPairOn } from './items.ts';
import { ledgerOf, pairChange, rebuildState, wearsOf } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

type LotRow = { lot: typeof filterLot.$inferSelect; model: typeof filterModel.$inferSelect };

/** A pair's label. */
export const pairTag = (number: number) => `FP-${String(number).padStart(4, '0')}`;

/** Every lot in the store. */
export const listLots = (db: Connection): Promise<LotRow[]> =>
	db
		.select({ lot: filterLot, model: filterModel })
		.from(filterLot)
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.orderBy(asc(filterModel.name), asc(filterLot.useBy));

/** Masks that carry filters, the lightest first, and what they are as a carrier. */
const CARRIERS = { 'half-mask': 'half mask', 'full-face': 'full-face mask' } as const;

/**
 * What a plan asks of the filters of a mask; null where the plan ends in no filter for one. Without a family the
 * lightest mask that the plan permits.
 */
export function needOf(
	decision: HazardDecision,
	facts: HazardFacts,
	mask: { family?: string; mount: string | null; filters: number }
): FilterNeed | null {
	const kind = decision.permitted.find(
		(k) => k.kind in CARRIERS && k.filters && (mask.family ?? k.kind) === k.kind
	);
	if (!kind?.filters) return null;
	return {
		ruleSet: facts.ruleSet,
		codeEn: kind.filters.en,
		codeUs: kind.filters.us,
		mount: mask.mount,
		filters: mask.filters,
		carrier: CARRIERS[kind.kind as keyof typeof CARRIERS],
		oilAerosol: facts.oilAerosol
	};
}

/** How long filters of a model last under a plan. */
export function lifeOf(
	model: typeof filterModel.$inferSelect,
	decision: HazardDecision,
	facts: HazardFacts,
	filters: number
): PlanLife {
	const gas = model.codeEn ? parseEn(model.codeEn)?.gas : undefined;
	const classes = Object.values(gas ?? {});
	return planLife(decision.contaminants, facts, {
		bed: bedOf(model.bed),
		filters,
		gasClass: (classes.length ? Math.min(...classes) : 1) as GasClass
	});
}

/** The store judged against a plan: what serves, least first, and why each other does not. */
export async function stockForPlan(context: Context, site: Site, planId: string) {
	const page = await planPage(context, site, planId);
	const { decision, inForce, asOf } = page;
	const need = needOf(decision, inForce, { mount: null, filters: 2 });
	const lots = await listLots(context.db);
	const judged = lots.map((row) => {
		const stock = { ...row.model, ...row.lot };
		return {
			...row,
			verdict: need ? judgeStock(stock, need, asOf) : null,
			life: need ? lifeOf(row.model, decision, inForce, 2) : null,
			surplus: surplus(stock, inForce.ruleSet)
		};
	});
	judged.sort(
		(a, b) =>
			Number(b.verdict?.outcome === 'serves') - Number(a.verdict?.outcome === 'serves') ||
			a.surplus - b.surplus ||
			a.lot.useBy.localeCompare(b.lot.useBy)
	);
	return { page, need, judged, asOf };
}

/** Pairs with their filters, the mask, the plan and who opened them; the caller says which. */
export const pairRows = (db: Connection) =>
	db
		.select({
			pair: filterPair,
			model: filterModel,
			lot: filterLot,
			itemTag: item.tag,
			plan: hazardPlan.task,
			planNumber: hazardPlan.number,
			by: user.name
		})
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.innerJoin(item, eq(item.id, filterPair.itemId))
		.innerJoin(user, eq(user.id, filterPair.openedBy))
		.leftJoin(hazardPlan, eq(hazardPlan.id, filterPair.planId))
		.$dynamic();

/** Opened pairs with their change dates and what is used of their lives, the earliest first. */
export async function openPairs(context: Pick<Context, 'db' | 'now'>, site: Site) {
	const asOf = dayAt(context.now(), site.timeZone);
	const rows = await pairRows(context.db)
		.where(isNull(filterPair.discardedAt))
		.orderBy(desc(filterPair.openedOn))
		.limit(500);
	const wears = await wearsOf(
		context.db,
		rows.map((row) => row.pair.id)
	);
	return rows
		.map((row) => {
			const worn = wears.get(row.pair.id) ?? [];
			const change = pairChange({ ...row, wears: worn });
			return {
				...row,
				tag: pairTag(row.pair.number),
				change,
				used: ledgerOf(worn).used,
				recalled: row.lot.recalledAt !== null,
				daysLeft: daysBetween(asOf, change.changeOn)
			};
		})
		.sort((a, b) => a.change.changeOn.localeCompare(b.change.changeOn));
}

export interface OpenPair {
	id: string;
	lotId: string;
	itemTag: string;
	planId: string;
	initials: string;
	/** Why the pair that is on the mask goes; needed where there is one. */
	discardReason: DiscardReason | '';
}

/** Opens sealed filters onto a mask: refuses what does not serve the plan, dates and initials the pair. */
export async function openPair(
	context: Context,
	site: Site,
	input: OpenPair
): Promise<{ tag: string; changeOn: string; changeAfterMin: number | null }> {
	requireRole(context.actor, 'open filters');
	const { page, asOf } = await stockForPlan(context, site, input.planId);
	const mask = await itemByTag(context.db, input.itemTag);
	return inTransaction(context, async (tx) => {
		// The locks come first: a retry that races its first try waits here and then finds it done.
		await tx.select({ id: item.id }).from(item).where(eq(item.id, mask.item.id)).for('update');
		const [row] = await tx
			.select({ lot: filterLot, model: filterModel })
			.from(filterLot)
			.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
			.where(eq(filterLot.id, input.lotId))
			.for('update', { of: filterLot });
		const [again] = await tx.select().from(filterPair).where(eq(filterPair.id, input.id));
		if (again) return opened(tx, again.itemId);
		if (!row) throw new Fault('not found', 'This lot is not in the store.', 'lotId');
		if (mask.item.retiredOn)
			throw new Fault('conflict', `${mask.item.tag} is out of use for good.`, 'itemTag');
		const filters = mask.model.filterCount;
		const { family } = mask.item;
		const need = needOf(page.decision, page.inForce, { family, mount: mask.model.mount, filters });
		if (!need)
			throw new Fault(
				'conflict',
				`Under this plan a ${airwayOf(family).name.toLowerCase()} with filters is not permitted.`,
				'itemTag'
			);
		const verdict = judgeStock({ ...row.model, ...row.lot }, need, asOf);
		if (verdict.outcome !== 'serves')
			throw new Fault(
				'conflict',
				`${row.model.name}, lot ${row.lot.lot}: ${verdict.reasons.map((r) => r.text).join(' ')}`,
				'lotId'
			);
		const before = await openPairOn(tx, mask.item.id);
		if (before) {
			if (!input.discardReason)
				throw new Fault(
					'invalid',
					`${mask.item.tag} still carries ${pairTag(before.pair.number)}. Say why it goes.`,
					'discardReason'
				);
			await discard(tx, context, before.pair, input.discardReason);
		}
		const life = lifeOf(row.model, page.decision, page.inForce, filters);
		await tx
			.update(filterLot)
			.set({ sealedQuantity: row.lot.sealedQuantity - filters })
			.where(eq(filterLot.id, row.lot.id));
		await tx.insert(filterPair).values({
			id: input.id,
			lotId: row.lot.id,
			itemId: mask.item.id,
			planId: page.plan.id,
			filters,
			openedOn: asOf,
			initials: input.initials,
			openedBy: context.actor.id,
			changeAfterMin: life.changeAfterMin,
			exposureMin: page.inForce.exposureMin,
			singleUse: life.singleUse
		});
		await rebuildState(tx, [mask.item.id], site);
		const result = await opened(tx, mask.item.id);
		await record(tx, context.actor.id, {
			action: 'filters.opened',
			subject: `pair:${input.id}`,
			itemId: mask.item.id,
			payload: {
				pair: result.tag,
				filter: row.model.name,
				lot: row.lot.lot,
				plan: page.plan.number,
				initials: input.initials,
				changeOn: result.changeOn,
				changeAfterMin: result.changeAfterMin,
				discarded: before ? { pair: pairTag(before.pair.number), why: input.discardReason } : null
			}
		});
		return result;
	});
}

/**
 * Takes an opened pair out of use. A reason that speaks against the prediction raises a flag on its plan.
 * The caller holds the lock on the item and rebuilds its state.
 */
export async function discard(
	tx: Connection,
	context: Context,
	pair: typeof filterPair.$inferSelect,
	reason: DiscardReason
): Promise<void> {
	await tx
		.update(filterPair)
		.set({
			discardedAt: context.now(),
			discardReason: reason,
			discardedBy: context.actor.id
		})
		.where(eq(filterPair.id, pair.id));
	const ledger = ledgerOf((await wearsOf(tx, [pair.id])).get(pair.id) ?? []);
	const flag = earlyFlag(reason, ledger);
	if (flag && pair.planId)
		await raiseFlag(tx, context, {
			id: crypto.randomUUID(),
			planId: pair.planId,
			pairId: pair.id,
			text: `${pairTag(pair.number)}: ${EARLY_REASONS[reason].words} at ${Math.round(ledger.used * 100)} % of its predicted life. ${flag.text}`
		});
}

async function opened(tx: Connection, itemId: string) {
	const row = await openPairOn(tx, itemId);
	if (!row) throw new Fault('conflict', 'This pair was discarded meanwhile.');
	const change = pairChange(row);
	return {
		tag: pairTag(row.pair.number),
		changeOn: change.changeOn,
		changeAfterMin: change.changeAfterMin
	};
}
