import { and, asc, desc, eq, isNull } from 'drizzle-orm';
import { judgeItem, type ItemState } from '../../core/readiness/item-state.ts';
import type { Context } from './context.ts';
import { countItems, countReady, listItems, type ItemFilter } from './db/queries/items.ts';
import type { Connection } from './db/client.ts';
import {
	defect,
	filterLot,
	filterModel,
	filterPair,
	inspectionAnswer,
	inspectionRun,
	item,
	itemModel,
	place,
	user
} from './db/schema/index.ts';
import { Fault } from './errors.ts';
import { openJob } from './faults.ts';
import { standing } from './db/queries/inspections.ts';
import { ledgerOf, loadFacts, pairChange, wearsOf } from './readiness.ts';
import { dayAt, type Site } from './site.ts';

export const PAGE_SIZE = 50;

/** One page of the register. */
export async function register(
	context: Pick<Context, 'db' | 'now'>,
	site: Site,
	filter: ItemFilter,
	page: number
) {
	const asOf = dayAt(context.now(), site.timeZone);
	const [total, rows] = await Promise.all([
		countItems(context.db, filter, asOf),
		listItems(context.db, filter, asOf, { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE })
	]);
	return { total, rows, asOf };
}

/** How many items the site has ready of each kind of protection: families go by the keys of the kinds. */
export async function readyByKind(db: Connection, asOf: string): Promise<Record<string, number>> {
	const rows = await countReady(db, asOf);
	return Object.fromEntries(rows.map((row) => [row.family, row.n]));
}

/** A tag as it is stored: without spaces, upper case. */
export const tidyTag = (text: string) => text.trim().toUpperCase().replaceAll(/\s+/g, '-');

/** An item by tag with its model and place. Refuses an unknown tag by name. */
export async function itemByTag(db: Connection, tag: string) {
	const [row] = await db
		.select({ item, model: itemModel, place: place.name })
		.from(item)
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.innerJoin(place, eq(place.id, item.placeId))
		.where(eq(item.tag, tidyTag(tag)));
	if (!row)
		throw new Fault(
			'not found',
			`No item carries the tag ${tidyTag(tag)}. Look at the label again, or find it in the register.`,
			'tag'
		);
	return row;
}

export interface StationState {
	state: 'good' | 'reject' | 'watch' | 'not fitted' | 'unknown';
	/** When it was last looked at. */
	on?: string;
	by?: string;
	defects: { id: string; code: string; severity: string; note: string | null }[];
}

/** Everything that an item's page shows. */
export async function itemPage(context: Context, site: Site, tag: string) {
	const { db } = context;
	const found = await itemByTag(db, tag);
	const id = found.item.id;
	const asOf = dayAt(context.now(), site.timeZone);
	const [facts, defects, lastRun, openRun, job, pair] = await Promise.all([
		loadFacts(db, [id], site.timeZone),
		db
			.select()
			.from(defect)
			.where(and(eq(defect.itemId, id), isNull(defect.closedAt)))
			.orderBy(asc(defect.reportedAt)),
		lastSignedRun(db, id),
		db
			.select()
			.from(inspectionRun)
			.where(and(eq(inspectionRun.itemId, id), isNull(inspectionRun.signedAt))),
		openJob(db, id),
		openPairOn(db, id)
	]);
	const itemFacts = facts.get(id);
	if (!itemFacts) throw new Fault('not found', 'This item is gone from the register.');
	return {
		...found,
		asOf,
		verdict: judgeItem(itemFacts, site.ruleSet, asOf),
		facts: itemFacts,
		defects,
		lastRun,
		openRun: openRun[0] ?? null,
		job: job ?? null,
		pair: pair && { ...pair, change: pairChange(pair), ledger: ledgerOf(pair.wears) }
	};
}

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

/** The last signed inspection of an item with its answers. */
export async function lastSignedRun(db: Connection, itemId: string) {
	const [run] = await db
		.select({ run: inspectionRun, by: user.name })
		.from(inspectionRun)
		.innerJoin(user, eq(user.id, inspectionRun.signedBy))
		.where(and(eq(inspectionRun.itemId, itemId), ...standing(db)))
		.orderBy(desc(inspectionRun.signedAt))
		.limit(1);
	if (!run?.run.signedAt) return null;
	const answers = await db
		.select()
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, run.run.id))
		.orderBy(asc(inspectionAnswer.position));
	return { ...run.run, by: run.by, answers };
}

export type ItemPage = Awaited<ReturnType<typeof itemPage>>;
export const ITEM_STATES: readonly ItemState[] = [
	'ready',
	'due',
	'overdue',
	'held',
	'in service',
	'retired'
];
