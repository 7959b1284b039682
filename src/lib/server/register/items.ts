import { eq } from 'drizzle-orm';
import { readable } from '../../../core/plan/calendar.ts';
import type { ItemState } from '../../../core/readiness/findings.ts';
import type { Connection } from '../db/client.ts';
import { countItems, type ItemFilter, listItems } from '../db/queries/items.ts';
import { countReady } from '../db/queries/stock.ts';
import { item, itemModel, place } from '../db/schema/index.ts';
import { type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';

export const PAGE_SIZE = 50;
/** How many pages a list takes; an empty one has its one. */
export const pagesOf = (total: number): number => Math.max(1, Math.ceil(total / PAGE_SIZE));

/** One page of the register. */
export async function register(context: Reader, filter: ItemFilter, page: number) {
	const asOf = todayOf(context);
	const [counted, rows] = await Promise.all([
		countItems(context.db, filter, asOf),
		listItems(context.db, filter, asOf, { limit: PAGE_SIZE, offset: (page - 1) * PAGE_SIZE })
	]);
	return { ...counted, rows, asOf };
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
		throw new Refusal(
			'not found',
			`No item carries the tag ${tidyTag(tag)}. Look at the label again, or find it in the register.`,
			'tag'
		);
	return row;
}

/** @throws Refusal where an item was taken out of use for good */
export function refuseRetired(
	{ tag, retiredOn }: Pick<typeof item.$inferSelect, 'tag' | 'retiredOn'>,
	path?: string
): void {
	if (retiredOn)
		throw new Refusal('conflict', `${tag} was taken out of use on ${readable(retiredOn)}.`, path);
}

export const ITEM_STATES: readonly ItemState[] = [
	'ready',
	'due',
	'overdue',
	'held',
	'in wash',
	'in service',
	'issued',
	'retired'
];
