import { and, asc, desc, eq, inArray, isNotNull, isNull } from 'drizzle-orm';
import { stationOf } from '../../core/data/families.ts';
import { changeDate } from '../../core/filters/change-date.ts';
import { parseEn, parseUs } from '../../core/filters/filter-code.ts';
import { wearLedger } from '../../core/filters/ledger.ts';
import { stateCache, type ItemFacts } from '../../core/readiness/item-state.ts';
import { cylindersOf, type HeldCylinder } from './cylinder-facts.ts';
import type { Connection } from './db/client.ts';
import {
	defect,
	filterLot,
	filterModel,
	filterPair,
	filterWear,
	inspectionRun,
	item,
	itemModel,
	itemState,
	serviceJob
} from './db/schema/index.ts';
import { groupBy } from './group.ts';
import { standing } from './db/queries/inspections.ts';
import { dayAt, type Site } from './site.ts';
import { trendsOf } from './trends.ts';

/** The opened pair on an item with the model it came from. */
export type PairRow = {
	pair: typeof filterPair.$inferSelect;
	model: typeof filterModel.$inferSelect;
	/** Tasks it was worn for; left out: none. */
	wears?: readonly WearRow[];
};

export type WearRow = typeof filterWear.$inferSelect;

/** The ledger of a pair from its wear entries. */
export const ledgerOf = (wears: readonly WearRow[]) =>
	wearLedger(
		wears.map((wear) => ({
			on: wear.wornOn,
			minutes: wear.minutes,
			lifeMin: wear.lifeMin,
			task: wear.task
		}))
	);

/** Wear entries of pairs, by pair. */
export async function wearsOf(db: Connection, pairIds: string[]): Promise<Map<string, WearRow[]>> {
	if (pairIds.length === 0) return new Map();
	const rows = await db
		.select()
		.from(filterWear)
		.where(inArray(filterWear.pairId, pairIds))
		.orderBy(asc(filterWear.wornOn), asc(filterWear.enteredAt));
	return groupBy(rows, (row) => row.pairId);
}

/** The change date of an opened pair and its reasons. */
export function pairChange({ pair, model, wears = [] }: PairRow) {
	const en = model.codeEn ? parseEn(model.codeEn) : undefined;
	const us = model.codeUs ? parseUs(model.codeUs) : undefined;
	return changeDate({
		openedOn: pair.openedOn,
		catchesGas: Object.keys(en?.gas ?? {}).length > 0 || (us?.gas.length ?? 0) > 0,
		catchesParticles: Boolean(en?.particle ?? us?.particle),
		makerOpenedMonths: model.openedMonths,
		changeAfterMin: pair.changeAfterMin,
		exposureMin: pair.exposureMin,
		singleUse: pair.singleUse,
		ledger: wears.length ? ledgerOf(wears) : null
	});
}

/** Everything that the state of each item follows from. */
export async function loadFacts(
	db: Connection,
	itemIds: string[],
	timeZone: string
): Promise<Map<string, ItemFacts>> {
	const facts = new Map<string, ItemFacts>();
	if (itemIds.length === 0) return facts;
	const [items, defects, jobs, runs, pairs] = [
		await db
			.select({
				item,
				holdDropBar: itemModel.holdDropBar,
				withdrawnOn: itemModel.withdrawnOn,
				withdrawnWhy: itemModel.withdrawnWhy
			})
			.from(item)
			.innerJoin(itemModel, eq(itemModel.id, item.modelId))
			.where(inArray(item.id, itemIds)),
		await db
			.select()
			.from(defect)
			.where(and(inArray(defect.itemId, itemIds), isNull(defect.closedAt))),
		await db
			.select({ itemId: serviceJob.itemId })
			.from(serviceJob)
			.where(
				and(
					inArray(serviceJob.itemId, itemIds),
					isNull(serviceJob.releasedAt),
					isNull(serviceJob.supersededAt)
				)
			),
		await db
			.selectDistinctOn([inspectionRun.itemId], {
				itemId: inspectionRun.itemId,
				signedAt: inspectionRun.signedAt
			})
			.from(inspectionRun)
			.where(
				and(
					inArray(inspectionRun.itemId, itemIds),
					...standing(db),
					inArray(inspectionRun.outcome, ['pass', 'pass, watch'])
				)
			)
			.orderBy(inspectionRun.itemId, desc(inspectionRun.signedAt)),
		await db
			.select({ pair: filterPair, model: filterModel, recalledAt: filterLot.recalledAt })
			.from(filterPair)
			.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
			.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
			.where(and(inArray(filterPair.itemId, itemIds), isNull(filterPair.discardedAt)))
	];
	const wears = await wearsOf(
		db,
		pairs.map((row) => row.pair.id)
	);
	const cylinders = await cylindersOf(db, itemIds, timeZone);
	const parts = await partsOf(db, itemIds, timeZone);
	const trends = await trendsOf(
		db,
		timeZone,
		items.map(({ item: row, holdDropBar }) => ({ id: row.id, holdDropBar }))
	);
	for (const { item: row, withdrawnOn, withdrawnWhy } of items) {
		const run = runs.find((r) => r.itemId === row.id);
		const pair = pairs.find((p) => p.pair.itemId === row.id);
		facts.set(row.id, {
			retiredOn: row.retiredOn,
			openDefects: defects
				.filter((d) => d.itemId === row.id)
				.map((d) => ({
					severity: d.severity,
					code: d.code,
					station: stationOf(row.family, d.station).name
				})),
			inService: jobs.some((job) => job.itemId === row.id),
			lastInspectionOn: run?.signedAt ? dayAt(run.signedAt, timeZone) : null,
			watched: trends.get(row.id)?.flatMap((t) => [...t.reasons]) ?? [],
			filterChangeOn: pair
				? pairChange({ ...pair, wears: wears.get(pair.pair.id) ?? [] }).changeOn
				: null,
			filtersRecalled: Boolean(pair?.recalledAt),
			withdrawn: withdrawnOn ? { on: withdrawnOn, why: withdrawnWhy ?? '' } : null,
			cylinder: knownOf(cylinders.get(row.id)),
			parts: parts.get(row.id) ?? []
		});
	}
	return facts;
}

const knownOf = (held: HeldCylinder | undefined) => {
	if (!held) return null;
	const { cylinder, ...followed } = held;
	return { ...cylinder, ...followed };
};

/** The parts of sets with their facts, by set. */
async function partsOf(db: Connection, setIds: string[], timeZone: string) {
	const rows = await db
		.select({ id: item.id, tag: item.tag, setId: item.setId })
		.from(item)
		.where(inArray(item.setId, setIds))
		.orderBy(asc(item.tag));
	const facts = await loadFacts(
		db,
		rows.map((row) => row.id),
		timeZone
	);
	const bySet = new Map<string, { tag: string; facts: ItemFacts }[]>();
	for (const { id, tag, setId } of rows) {
		const own = facts.get(id);
		if (own && setId) bySet.set(setId, [...(bySet.get(setId) ?? []), { tag, facts: own }]);
	}
	return bySet;
}

/** Works the kept state of items, and of the sets that they are in, out anew from their facts. Called in the transaction of every write. */
export async function rebuildState(tx: Connection, changed: string[], site: Site): Promise<void> {
	if (changed.length === 0) return;
	const sets = await tx
		.select({ id: item.setId })
		.from(item)
		.where(and(inArray(item.id, changed), isNotNull(item.setId)));
	const itemIds = [...new Set([...changed, ...sets.flatMap((s) => s.id ?? [])])];
	const facts = await loadFacts(tx, itemIds, site.timeZone);
	const rows = [...facts].map(([itemId, f]) => ({
		itemId,
		...stateCache(f, site.ruleSet),
		lastInspectionOn: f.lastInspectionOn
	}));
	for (const row of rows)
		await tx
			.insert(itemState)
			.values(row)
			.onConflictDoUpdate({ target: itemState.itemId, set: row });
}
