import { and, asc, eq, gt, inArray, isNull, ne } from 'drizzle-orm';
import { airwayOf } from '../../../core/data/families.ts';
import { protectionKind } from '../../../core/data/protection-factors.ts';
import { recordOf, servedBy } from '../../../core/data/family-records.ts';
import { type GasClass, parseEn } from '../../../core/filters/filter-code.ts';
import { type DiscardReason, EARLY_REASONS, earlyFlag } from '../../../core/filters/ledger.ts';
import { planLife, type PlanLife, wornAs } from '../../../core/filters/plan-life.ts';
import { bedOf } from '../../../core/filters/service-life.ts';
import { type FilterNeed, judgePack, judgeStock, surplus } from '../../../core/filters/stock.ts';
import type { HazardDecision } from '../../../core/hazards/decision.ts';
import type { HazardFacts } from '../../../core/hazards/facts.ts';
import type { ModelCard } from '../../../core/register/model-card.ts';
import { daysBetween } from '../../../core/plan/calendar.ts';
import type { Connection } from '../db/client.ts';
import { countOpenPairs, openPairIds } from '../db/queries/open-pairs.ts';
import {
	filterLayer,
	filterLot,
	filterModel,
	filterPair,
	hazardPlan,
	item,
	itemModel,
	user
} from '../db/schema/index.ts';
import { planPage, raiseFlag } from '../hazards/plans.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { readerOf, type Work, write } from '../kernel/write.ts';
import { isApproved, refuseUnapproved, servedKind } from '../register/sets.ts';
import { itemByTag, PAGE_SIZE, pagesOf, refuseRetired } from '../register/items.ts';
import { ledgerOf, openPairOn, pairChange, wearsOf } from './change.ts';

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

/** How filters are worn: the kind of protection that they make, and what its own blower moves where its maker says so. */
export interface Worn {
	kind: string | null;
	blowerLPerMin?: number | undefined;
}

/**
 * What a plan asks of the filters of a mask or blower, as the kind that it is with what is put onto it, and that kind;
 * null where the plan ends in no filter for it. Without a family the lightest mask that the plan permits.
 */
export function needOf(
	decision: HazardDecision,
	facts: HazardFacts,
	mask: {
		family?: string;
		kind?: string | null;
		mount: string | null;
		filters: number;
		card?: ModelCard;
	}
): (FilterNeed & Worn) | null {
	const kind = decision.permitted.find(
		(k) => k.filters && (mask.family ? k.kind === mask.kind : recordOf(k.kind).carries !== null)
	);
	const carrier = kind && recordOf(mask.family ?? kind.kind).carries;
	if (!kind?.filters || !carrier) return null;
	return {
		kind: kind.kind,
		ruleSet: facts.ruleSet,
		codeEn: kind.filters.en,
		codeUs: kind.filters.us,
		mount: mask.mount,
		filters: mask.filters,
		carrier,
		mostG: mask.card?.filterMassG,
		blowerLPerMin: mask.card?.blowerLPerMin,
		oilAerosol: facts.oilAerosol
	};
}

/** How long so many filters of a model last under a plan, on a kind: a blower draws its own flow through them. */
export function lifeOf(
	model: typeof filterModel.$inferSelect,
	decision: HazardDecision,
	facts: HazardFacts,
	filters: number,
	{ kind, blowerLPerMin }: Worn
): PlanLife {
	const gas = model.codeEn ? parseEn(model.codeEn)?.gas : undefined;
	const classes = Object.values(gas ?? {});
	const protection = protectionKind(kind ?? undefined) ?? {};
	// A flow of its maker takes the place of the usual one of a kind that has a blower.
	const own = 'blowerLPerMin' in protection && blowerLPerMin !== undefined ? { blowerLPerMin } : {};
	return planLife(decision.contaminants, facts, {
		...wornAs({ ...protection, ...own }, bedOf(model.bed)),
		filters,
		gasClass: (classes.length ? Math.min(...classes) : 1) as GasClass
	});
}

/** What filters hang on at the site: family, mount and how many of them, in the order of their names. */
const mountsOf = (db: Connection) =>
	db
		.selectDistinct({
			family: itemModel.family,
			mount: itemModel.mount,
			filters: itemModel.filterCount,
			card: itemModel.card
		})
		.from(itemModel)
		.where(and(ne(itemModel.mount, 'none'), gt(itemModel.filterCount, 0)))
		.orderBy(asc(itemModel.family), asc(itemModel.mount));

/** The store judged against a plan: what serves, least first, and why each other does not. */
export async function stockForPlan(context: Context, planId: string) {
	const page = await planPage(context, planId);
	const { decision, inForce, asOf } = page;
	const plain = needOf(decision, inForce, { mount: null, filters: 2 });
	const [lots, hangers] = await Promise.all([listLots(context.db), mountsOf(context.db)]);
	const needs = hangers.flatMap(({ family, mount, filters, card }) => {
		const kind = servedBy(family);
		const need = needOf(decision, inForce, { family, kind, mount, filters, card });
		return need ? [need] : [];
	});
	const judged = lots.map((row) => {
		const stock = { ...row.model, ...row.lot };
		// By what of the site's it fits; by the lightest mask where it fits nothing.
		const fitting = needs.filter((need) => need.mount === row.model.mount);
		const tried = fitting.length ? fitting : plain ? [plain] : [];
		const found = tried.map((need) => ({ need, verdict: judgeStock(stock, need, asOf) }));
		const best = found.find(({ verdict }) => verdict.outcome === 'serves') ?? found[0];
		return {
			...row,
			verdict: best?.verdict ?? null,
			life: best ? lifeOf(row.model, decision, inForce, best.need.filters, best.need) : null,
			surplus: surplus(stock, inForce.ruleSet)
		};
	});
	const need = plain ?? needs[0] ?? null;
	judged.sort(
		(a, b) =>
			Number(b.verdict?.outcome === 'serves') - Number(a.verdict?.outcome === 'serves') ||
			a.surplus - b.surplus ||
			a.lot.useBy.localeCompare(b.lot.useBy)
	);
	return { page, need, judged, asOf };
}

/** Lots that may be fitted to a model today where no plan is asked: by mount, date and how many it takes. */
export async function lotsFitting(
	context: Context,
	{ mount, filterCount: filters, approved, card }: typeof itemModel.$inferSelect
) {
	const lots = await listLots(context.db);
	return lots.filter(
		({ lot, model }) =>
			model.role === 'filter' &&
			isApproved({ approved }, model.name) &&
			judgePack(
				{ ...model, ...lot },
				{ mount, filters, carrier: 'pouch', mostG: card.filterMassG },
				todayOf(context)
			).outcome === 'serves'
	);
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

/**
 * A page of the opened pairs, with their change dates and what is used of their lives: recalled ones first, then
 * the next to change, by the dues of their masks.
 */
export async function openPairs(context: Reader, page: number) {
	const asOf = todayOf(context);
	const [ids, counted] = await Promise.all([
		openPairIds(context.db, { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE }),
		countOpenPairs(context.db)
	]);
	const found = ids.length ? await pairRows(context.db).where(inArray(filterPair.id, ids)) : [];
	const byId = new Map(found.map((row) => [row.pair.id, row]));
	const rows = ids.flatMap((id) => byId.get(id) ?? []);
	const wears = await wearsOf(
		context.db,
		rows.map((row) => row.pair.id)
	);
	return {
		...counted,
		pages: pagesOf(counted.total),
		pairs: rows.map((row) => {
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
	};
}

export interface OpenPair {
	id: string;
	lotId: string;
	itemTag: string;
	/** The plan that it is opened for; null where the filter stays sealed and no plan is asked. */
	planId: string | null;
	initials: string;
	/** Why the pair that is on the mask goes; needed where there is one. */
	discardReason: DiscardReason | '';
}

/** What opening a pair comes to. */
export interface Opened {
	tag: string;
	changeOn: string;
	changeAfterMin: number | null;
}

/** Opens sealed filters onto a mask: refuses what does not serve the plan, dates and initials the pair. */
export function openPair(context: Context, input: OpenPair): Promise<Opened> {
	const asked = { id: input.id, content: input };
	return write(context, 'open filters', asked, async (at) => {
		const { tx } = at;
		const mask = await itemByTag(tx, input.itemTag);
		await tx.select({ id: item.id }).from(item).where(eq(item.id, mask.item.id)).for('update');
		const [row] = await tx
			.select({ lot: filterLot, model: filterModel })
			.from(filterLot)
			.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
			.where(eq(filterLot.id, input.lotId))
			.for('update', { of: filterLot });
		if (!row) throw new Refusal('not found', 'This lot is not in the store.', 'lotId');
		refuseRetired(mask.item, 'itemTag');
		refuseUnapproved(mask.model, row.model.name, 'lotId');
		const filters = mask.model.filterCount;
		const asked = await askedOf(at, mask, input.planId);
		const stock = { ...row.model, ...row.lot };
		const verdict =
			asked.plan === null
				? judgePack(stock, asked.need, at.today)
				: judgeStock(stock, asked.need, at.today);
		if (verdict.outcome !== 'serves')
			throw new Refusal(
				'conflict',
				`${row.model.name}, lot ${row.lot.lot}: ${verdict.reasons.map((r) => r.text).join(' ')}`,
				'lotId'
			);
		const before = await openPairOn(tx, mask.item.id);
		if (before) {
			if (!input.discardReason)
				throw new Refusal(
					'invalid',
					`${mask.item.tag} still carries ${pairTag(before.pair.number)}. Say why it goes.`,
					'discardReason'
				);
			await discard(at, before.pair, input.discardReason);
		}
		const { plan } = asked;
		const life = plan && lifeOf(row.model, plan.decision, plan.inForce, filters, asked.need);
		await tx
			.update(filterLot)
			.set({ sealedQuantity: row.lot.sealedQuantity - filters })
			.where(eq(filterLot.id, row.lot.id));
		await tx.insert(filterPair).values({
			id: input.id,
			lotId: row.lot.id,
			itemId: mask.item.id,
			planId: plan?.plan.id ?? null,
			filters,
			openedOn: at.today,
			initials: input.initials,
			openedBy: at.actor.id,
			changeAfterMin: life?.changeAfterMin ?? null,
			exposureMin: plan?.inForce.exposureMin ?? null,
			singleUse: life?.singleUse ?? false,
			sealedUntil: plan ? null : row.lot.useBy
		});
		at.changed(mask.item.id);
		const result = await opened(tx, mask.item.id);
		at.record('filters.opened', {
			of: input.id,
			itemId: mask.item.id,
			payload: {
				pair: result.tag,
				filter: row.model.name,
				lot: row.lot.lot,
				...(plan ? { plan: plan.plan.number } : { sealed: true }),
				initials: input.initials,
				changeOn: result.changeOn,
				changeAfterMin: result.changeAfterMin,
				discarded:
					before && input.discardReason
						? { pair: pairTag(before.pair.number), why: input.discardReason }
						: null
			}
		});
		return result;
	});
}

type Mask = Awaited<ReturnType<typeof itemByTag>>;

/**
 * What is asked of filters for an item: by its plan, or by its place alone where they stay sealed.
 * @throws Refusal where the plan permits none on it, and where it takes none
 */
async function askedOf(at: Work, { item: { id, family }, model }: Mask, planId: string | null) {
	const { mount, filterCount: filters, card } = model;
	const { carries, keepsSealed } = recordOf(family);
	const name = airwayOf(family).name.toLowerCase();
	if (keepsSealed && carries) {
		if (mount === 'none')
			throw new Refusal('invalid', `${model.name} takes no filter of its own.`, 'itemTag');
		return {
			plan: null,
			need: { mount, filters, carrier: carries, mostG: card.filterMassG }
		};
	}
	if (!planId)
		throw new Refusal('invalid', `Filters for a ${name} are opened from a hazard plan.`, 'planId');
	const plan = await planPage(readerOf(at), planId);
	const { kind } = await servedKind(at.tx, id);
	const need = needOf(plan.decision, plan.inForce, { family, kind, mount, filters, card });
	if (!need)
		throw new Refusal(
			'conflict',
			`Under this plan a ${name} with filters is not permitted.`,
			'itemTag'
		);
	return { plan, need };
}

/**
 * Takes an opened pair out of use. A reason that speaks against the prediction raises a flag on its plan.
 * The caller holds the lock on the item and rebuilds its state.
 */
export async function discard(
	at: Work,
	pair: typeof filterPair.$inferSelect,
	reason: DiscardReason
): Promise<void> {
	const { tx } = at;
	await tx
		.update(filterPair)
		.set({
			discardedAt: at.now,
			discardReason: reason,
			discardedBy: at.actor.id
		})
		.where(eq(filterPair.id, pair.id));
	await tx
		.update(filterLayer)
		.set({ removedAt: at.now, removedBy: at.actor.id })
		.where(and(eq(filterLayer.pairId, pair.id), isNull(filterLayer.removedAt)));
	const ledger = ledgerOf((await wearsOf(tx, [pair.id])).get(pair.id) ?? []);
	const flag = earlyFlag(reason, ledger);
	if (flag && pair.planId)
		await raiseFlag(at, {
			id: crypto.randomUUID(),
			planId: pair.planId,
			pairId: pair.id,
			text: `${pairTag(pair.number)}: ${EARLY_REASONS[reason].words} at ${Math.round(ledger.used * 100)} % of its predicted life. ${flag.text}`
		});
}

async function opened(tx: Connection, itemId: string): Promise<Opened> {
	const row = await openPairOn(tx, itemId);
	if (!row) throw new Refusal('conflict', 'This pair was discarded meanwhile.');
	const change = pairChange(row);
	return {
		tag: pairTag(row.pair.number),
		changeOn: change.changeOn,
		changeAfterMin: change.changeAfterMin
	};
}
