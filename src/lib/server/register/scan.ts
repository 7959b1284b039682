import { eq } from 'drizzle-orm';
import { readSheetCode } from '../../../core/inspection/paper.ts';
import type { Connection } from '../db/client.ts';
import { wearerByNumber } from '../db/queries/names.ts';
import { filterPair, hazardPlan, item } from '../db/schema/index.ts';
import { tidyTag } from './items.ts';

/** The page of what carries a tag: an item, an opened pair of filters, a plan by number. */
export async function findByScan(db: Connection, word: string): Promise<string | undefined> {
	const sheet = readSheetCode(word);
	if (sheet)
		return `/items/${encodeURIComponent(sheet.tag)}/paper?procedure=${sheet.procedure}&version=${sheet.version}`;
	const tag = tidyTag(word);
	const [found] = await db.select({ tag: item.tag }).from(item).where(eq(item.tag, tag));
	if (found) return `/items/${found.tag}`;
	const pair = /^FP-(\d{1,9})$/.exec(tag)?.[1];
	if (pair) {
		const [row] = await db
			.select({ tag: item.tag })
			.from(filterPair)
			.innerJoin(item, eq(item.id, filterPair.itemId))
			.where(eq(filterPair.number, Number(pair)));
		if (row) return `/items/${row.tag}`;
	}
	const plan = /^PLAN-?(\d{1,9})$/.exec(tag)?.[1];
	if (plan) {
		const [row] = await db
			.select({ id: hazardPlan.id })
			.from(hazardPlan)
			.where(eq(hazardPlan.number, Number(plan)));
		if (row) return `/hazards/${row.id}`;
	}
	const who = await wearerByNumber(db, word);
	return who ? `/people/${who}` : undefined;
}
