import { and, asc, eq, isNull } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { judgeItem } from '../../../core/readiness/item-state.ts';
import type { Connection } from '../db/client.ts';
import { defect, inspectionRun } from '../db/schema/index.ts';
import { openJob } from '../faults/jobs.ts';
import { ledgerOf, openPairOn, pairChange } from '../filters/change.ts';
import { lastSignedRun } from '../inspection/last-run.ts';
import { type Context, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { careOf } from '../db/queries/care.ts';
import { duesOfItem } from '../db/queries/dues.ts';
import { loadFacts } from '../readiness/facts.ts';
import { history } from '../records/history.ts';
import { partsOf } from '../faults/fittings.ts';
import { sealOf } from '../custody/seals.ts';
import { itemByTag } from './items.ts';

/** Events that the page of an item shows; the rest stands in its history. */
const EVENTS = 6;

/** How an item stands now, beside a record of it. */
export async function itemNow(context: Context, itemId: string) {
	const { db, site } = context;
	const [facts, defects, job] = await Promise.all([
		loadFacts(db, [itemId], site),
		openDefectsOf(db, itemId),
		openJob(db, itemId)
	]);
	const known = facts.get(itemId);
	if (!known) throw new Refusal('not found', 'This item is gone from the register.');
	return {
		verdict: judgeItem(known.facts, site.ruleSet, todayOf(context)),
		defects,
		hasJob: job !== undefined
	};
}

const openDefectsOf = (db: Connection, itemId: string) =>
	db
		.select()
		.from(defect)
		.where(and(eq(defect.itemId, itemId), isNull(defect.closedAt)))
		.orderBy(asc(defect.reportedAt));

/** Everything that an item's page shows. */
export async function itemPage(context: Context, tag: string) {
	const { db } = context;
	const found = await itemByTag(db, tag);
	const id = found.item.id;
	const asOf = todayOf(context);
	const [facts, dues, events, defects, lastRun, openRun, job, pair, fitted] = await Promise.all([
		loadFacts(db, [id], context.site),
		duesOfItem(db, id),
		history(context, { itemId: id, limit: EVENTS }),
		openDefectsOf(db, id),
		lastSignedRun(db, id),
		db
			.select()
			.from(inspectionRun)
			.where(and(eq(inspectionRun.itemId, id), isNull(inspectionRun.signedAt))),
		openJob(db, id),
		openPairOn(db, id),
		partsOf(db, id)
	]);
	const known = facts.get(id);
	if (!known) throw new Refusal('not found', 'This item is gone from the register.');
	return {
		...found,
		asOf,
		verdict: judgeItem(known.facts, context.site.ruleSet, asOf),
		facts: known.facts,
		trends: known.trends,
		dues,
		events,
		defects,
		lastRun,
		openRun: openRun[0] ?? null,
		job: job ?? null,
		/** Parts with their lots, as repairs put them in or as it came. */
		fitted,
		/** The seal that it lies under, where it is kept for emergencies. */
		seal: found.item.usePattern === 'emergency' ? await sealOf(db, id) : null,
		/** When it was washed whole, and wiped since; null: it is never washed. */
		care: recordOf(found.item.family).washed ? await careOf(db, id) : null,
		pair: pair && { ...pair, change: pairChange(pair), ledger: ledgerOf(pair.wears) }
	};
}
