import { and, asc, eq, inArray, isNull } from 'drizzle-orm';
import { changeDate } from '../../../core/filters/change-date.ts';
import { parseEn, parseUs } from '../../../core/filters/filter-code.ts';
import { wearLedger } from '../../../core/filters/ledger.ts';
import { groupBy } from '../../../core/group-by.ts';
import type { Connection } from '../db/client.ts';
import type { PairFacts } from '../db/queries/facts.ts';
import { filterLot, filterModel, filterPair, filterWear } from '../db/schema/index.ts';

export type WearRow = typeof filterWear.$inferSelect;

/** The opened pair on an item with the model it came from. */
export interface PairRow {
	pair: typeof filterPair.$inferSelect;
	model: typeof filterModel.$inferSelect;
	/** Tasks it was worn for; left out: none. */
	wears?: readonly PairFacts['wears'][number][];
}

/** The ledger of a pair from its wear entries. */
export const ledgerOf = (wears: readonly PairFacts['wears'][number][]) =>
	wearLedger(
		wears.map(({ wornOn, minutes, lifeMin, task }) => ({ on: wornOn, minutes, lifeMin, task }))
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
export function changeOf(pair: Omit<PairFacts, 'itemId' | 'recalled' | 'filters'>) {
	const en = pair.codeEn ? parseEn(pair.codeEn) : undefined;
	const us = pair.codeUs ? parseUs(pair.codeUs) : undefined;
	return changeDate({
		openedOn: pair.openedOn,
		catchesGas: Object.keys(en?.gas ?? {}).length > 0 || (us?.gas.length ?? 0) > 0,
		catchesParticles: Boolean(en?.particle ?? us?.particle),
		makerOpenedMonths: pair.openedMonths,
		changeAfterMin: pair.changeAfterMin,
		exposureMin: pair.exposureMin,
		singleUse: pair.singleUse,
		sealedUntil: pair.sealedUntil,
		ledger: pair.wears.length ? ledgerOf(pair.wears) : null
	});
}

/** The same from the rows of a pair. */
export const pairChange = ({ pair, model, wears = [] }: PairRow) =>
	changeOf({
		openedOn: pair.openedOn,
		exposureMin: pair.exposureMin,
		changeAfterMin: pair.changeAfterMin,
		singleUse: pair.singleUse,
		sealedUntil: pair.sealedUntil,
		codeEn: model.codeEn,
		codeUs: model.codeUs,
		openedMonths: model.openedMonths,
		wears: [...wears]
	});

/** The opened pair on an item; undefined without one. */
export async function openPairOn(db: Connection, itemId: string) {
	const [row] = await db
		.select({ pair: filterPair, model: filterModel, lot: filterLot })
		.from(filterPair)
		.innerJoin(filterLot, eq(filterLot.id, filterPair.lotId))
		.innerJoin(filterModel, eq(filterModel.id, filterLot.modelId))
		.where(and(eq(filterPair.itemId, itemId), isNull(filterPair.discardedAt)));
	if (!row) return undefined;
	const wears = (await wearsOf(db, [row.pair.id])).get(row.pair.id) ?? [];
	return { ...row, wears };
}
