import { and, eq, inArray, isNull } from 'drizzle-orm';
import { mayMove, type Where, WHERE_WORDS } from '../../../core/custody/custody.ts';
import type { Connection } from '../db/client.ts';
import { custody, item, place, wearer } from '../db/schema/index.ts';
import { Refusal } from '../kernel/refusal.ts';
import type { Work } from '../kernel/write.ts';
import { breakSealOf } from './seals.ts';

export type CustodyRow = typeof custody.$inferSelect;

/** Where an item goes, and what belongs to it there. */
export interface Destination {
	where: Where;
	placeId?: string | null;
	wearerId?: string | null;
	handOutId?: string | null;
	batchId?: string | null;
	testHouseId?: string | null;
	note?: string;
}

/** Locks items in one order, so that two counters wait for each other and do not block each other. */
export async function lockItems(tx: Connection, ids: readonly string[]): Promise<void> {
	if (ids.length)
		await tx
			.select({ id: item.id })
			.from(item)
			.where(inArray(item.id, [...ids]))
			.orderBy(item.id)
			.for('update');
}

/** Where some items are now, by item. */
export async function openRows(
	db: Connection,
	ids: readonly string[]
): Promise<Map<string, CustodyRow & { number: string | null }>> {
	if (ids.length === 0) return new Map();
	const rows = await db
		.select({ row: custody, number: wearer.number })
		.from(custody)
		.leftJoin(wearer, eq(wearer.id, custody.wearerId))
		.where(and(inArray(custody.itemId, [...ids]), isNull(custody.until)));
	return new Map(rows.map(({ row, number }) => [row.itemId, { ...row, number }]));
}

/** Where an item is now. @throws where the database keeps no open row, which it never lets happen */
export async function openRow(db: Connection, itemId: string) {
	const row = (await openRows(db, [itemId])).get(itemId);
	if (!row) throw new Error(`Item ${itemId} is nowhere.`);
	return row;
}

/**
 * Ends where an item is and begins where it goes. The caller holds the lock on the item and records what happened; a
 * plain move is recorded by {@link bring}.
 * @param because the answer that sets a contradiction right: then any move is taken
 * @throws Refusal where it may not go there from where it is
 */
export async function moveTo(
	at: Work,
	found: { id: string; tag: string; placeId: string; setId: string | null },
	to: Destination,
	because = ''
): Promise<{ from: CustodyRow }> {
	const { tx, now } = at;
	const from = await openRow(tx, found.id);
	if (!because && !mayMove(from.where, to.where))
		throw new Refusal(
			'conflict',
			`${found.tag} is ${WHERE_WORDS[from.where]}: from there it is not put ${
				to.where === 'shelf' ? 'on its shelf' : `“${WHERE_WORDS[to.where]}”`
			}.`,
			'tag'
		);
	const since = now < from.since ? from.since : now;
	await tx.update(custody).set({ until: since }).where(eq(custody.id, from.id));
	await tx.insert(custody).values({
		itemId: found.id,
		where: to.where,
		placeId: to.placeId ?? (to.where === 'shelf' ? found.placeId : null),
		wearerId: to.wearerId ?? null,
		handOutId: to.handOutId ?? null,
		batchId: to.batchId ?? null,
		testHouseId: to.testHouseId ?? null,
		note: to.note ?? because,
		since,
		movedBy: at.actor.id
	});
	if (to.where !== 'shelf')
		await breakSealOf(at, found.id, `it left its place, ${WHERE_WORDS[to.where]}`);
	at.changed(found.id, ...(found.setId ? [found.setId] : []));
	return { from };
}

/** Takes a part off the set that it is on: it goes a way of its own. */
export async function takeOffSet(
	at: Work,
	part: typeof item.$inferSelect,
	set: { id: string; tag: string }
): Promise<void> {
	await at.tx
		.update(item)
		.set({ setId: null, setSince: null, version: part.version + 1 })
		.where(eq(item.id, part.id));
	at.changed(part.id, set.id);
	for (const [itemId, what] of [
		[part.id, `off ${set.tag}`],
		[set.id, `${part.tag} taken off`]
	] as const)
		at.record('set.moved', { of: part.id, itemId, payload: { what, from: set.tag, to: null } });
}

/** The same, from whatever set it is on; nothing where it is on none. */
export async function offItsSet(at: Work, part: typeof item.$inferSelect): Promise<void> {
	if (!part.setId) return;
	const [set] = await at.tx
		.select({ id: item.id, tag: item.tag })
		.from(item)
		.where(eq(item.id, part.setId));
	if (set) await takeOffSet(at, part, set);
}

/** Moves an item and records it. */
export async function bring(
	at: Work,
	found: typeof item.$inferSelect,
	to: Destination,
	because = ''
): Promise<void> {
	const { from } = await moveTo(at, found, to, because);
	const [named] = to.placeId
		? await at.tx.select({ name: place.name }).from(place).where(eq(place.id, to.placeId))
		: [];
	at.record('item.brought', {
		of: found.id,
		itemId: found.id,
		payload: {
			from: from.where,
			to: to.where,
			...(named ? { place: named.name } : {}),
			...(because || to.note ? { note: because || to.note } : {})
		}
	});
}

/** What was brought to repair goes back to its shelf with its release, and is not left behind as under repair. */
export async function backFromRepair(at: Work, itemId: string): Promise<void> {
	const { where } = await openRow(at.tx, itemId);
	if (where !== 'service') return;
	const [found] = await at.tx.select().from(item).where(eq(item.id, itemId));
	if (found) await bring(at, found, { where: 'shelf', note: 'released after repair' });
}
