import { and, asc, countDistinct, eq, gt, inArray, isNull } from 'drizzle-orm';
import { readable } from '../../../core/plan/calendar.ts';
import { partName, STORE_PARTS, stockOf } from '../../../core/service/parts-store.ts';
import type { Connection } from '../db/client.ts';
import { partFitting, partLevel, partLot, recall } from '../db/schema/index.ts';
import { type Context, type Reader, todayOf } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

/** Parts and consumables in the store, each with its lots, the earliest use-by date first, and whether to buy. */
export async function partsStore(context: Reader) {
	const asOf = todayOf(context);
	const [lots, levels] = await Promise.all([
		context.db.select().from(partLot).orderBy(asc(partLot.useBy), asc(partLot.lot)),
		context.db.select().from(partLevel)
	]);
	const levelOf = new Map(levels.map(({ part, reorderLevel }) => [part, reorderLevel]));
	return Object.entries(STORE_PARTS).flatMap(([part, { name, consumable }]) => {
		const own = lots.filter((lot) => lot.part === part);
		const level = levelOf.get(part) ?? 0;
		return own.length || level
			? [
					{
						part,
						name,
						consumable,
						level,
						lots: own.filter(({ quantity }) => quantity > 0),
						...stockOf(own, level, asOf)
					}
				]
			: [];
	});
}

/** Every lot of parts that is fitted, with how many items have one now and whether it was called back. */
export const lotsOfParts = async (db: Connection) =>
	(
		await db
			.select({
				id: partLot.id,
				part: partLot.part,
				lot: partLot.lot,
				quantity: partLot.quantity,
				fitted: countDistinct(partFitting.itemId),
				recalls: countDistinct(recall.id)
			})
			.from(partLot)
			.leftJoin(partFitting, and(eq(partFitting.lotId, partLot.id), isNull(partFitting.removedAt)))
			.leftJoin(recall, eq(recall.lotId, partLot.id))
			.groupBy(partLot.id)
			.orderBy(asc(partLot.part), asc(partLot.lot))
	)
		.filter(({ part }) => STORE_PARTS[part]?.consumable === false)
		.map(({ recalls, ...row }) => ({ ...row, recalled: recalls > 0, name: partName(row.part) }));

/** What is counted: every lot of which the record says that some is there, by where it lies. */
export const lotsToCount = async (db: Connection) =>
	(
		await db
			.select()
			.from(partLot)
			.where(gt(partLot.quantity, 0))
			.orderBy(asc(partLot.location), asc(partLot.part), asc(partLot.useBy))
	).map((lot) => ({ ...lot, name: partName(lot.part) }));

/** Lots for their labels. */
export const lotLabels = async (db: Connection, ids: readonly string[]) =>
	(
		await db
			.select()
			.from(partLot)
			.where(inArray(partLot.id, [...ids]))
			.orderBy(asc(partLot.part), asc(partLot.lot))
	).map((lot) => ({ ...lot, name: partName(lot.part) }));

export interface PartDelivery {
	id: string;
	part: string;
	lot: string;
	useBy: string | null;
	quantity: number;
	location: string;
	/** Price of one, in the money of the site; null or left out: not known. */
	costEach?: number | null | undefined;
}

/** Takes a delivery of parts into the store; more of a lot that is there adds to it. */
export function receiveParts(context: Context, input: PartDelivery): Promise<void> {
	const asked = { id: input.id, content: input };
	return write(context, 'keep the stores', asked, async (at) => {
		const { tx } = at;
		if (!(input.part in STORE_PARTS)) throw new Refusal('invalid', 'Choose what came.', 'part');
		if (input.useBy && input.useBy < at.today)
			throw new Refusal(
				'invalid',
				`Its use-by date of ${readable(input.useBy)} has passed: it is not taken into the store.`,
				'useBy'
			);
		const { id, quantity, ...rest } = input;
		const [held] = await tx
			.select()
			.from(partLot)
			.where(and(eq(partLot.part, input.part), eq(partLot.lot, input.lot)))
			.for('update');
		if (held && held.useBy !== input.useBy)
			throw new Refusal(
				'invalid',
				`Lot ${held.lot} is in the store ${held.useBy ? `with the use-by date ${readable(held.useBy)}` : 'without a use-by date'}. Look at the pack again.`,
				'useBy'
			);
		if (held)
			await tx
				.update(partLot)
				.set({
					quantity: held.quantity + quantity,
					location: input.location || held.location,
					costEach: input.costEach ?? held.costEach
				})
				.where(eq(partLot.id, held.id));
		else await tx.insert(partLot).values({ id, quantity, ...rest });
		at.record('part.received', {
			of: held?.id ?? id,
			payload: { part: partName(input.part), lot: input.lot, quantity, useBy: input.useBy }
		});
	});
}

/** Says below how many of a part more is bought; 0: never. */
export function setPartLevel(
	context: Context,
	input: { requestId: string; part: string; level: number }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the stores', { id, content }, async (at) => {
		const { tx } = at;
		if (!(input.part in STORE_PARTS))
			throw new Refusal('invalid', 'There is no such part.', 'part');
		const [held] = await tx
			.select()
			.from(partLevel)
			.where(eq(partLevel.part, input.part))
			.for('update');
		const before = held?.reorderLevel ?? 0;
		if (before === input.level) return;
		await tx
			.insert(partLevel)
			.values({ part: input.part, reorderLevel: input.level })
			.onConflictDoUpdate({ target: partLevel.part, set: { reorderLevel: input.level } });
		at.record('part.level-set', {
			of: input.part,
			payload: { part: partName(input.part), from: before, to: input.level }
		});
	});
}

/** One lot as it was counted, with what the page said of it. */
export interface CountedLot {
	lotId: string;
	seen: number;
	counted: number;
}

/**
 * A stock-take: what was counted takes the place of what the record said, all of it or nothing.
 * @returns lots that differ
 * @throws Refusal where a lot was used or filled up while it was counted
 */
export async function countParts(
	context: Context,
	input: { requestId: string; counts: readonly CountedLot[]; note: string }
): Promise<{ differ: number }> {
	const { requestId: id, ...content } = input;
	if (input.counts.length === 0)
		throw new Refusal('invalid', 'Nothing was counted: type what is there at one lot at least.');
	return write(context, 'keep the stores', { id, content }, async (at) => {
		let differ = 0;
		// Always in the same order, so that two counts never wait in a ring.
		for (const count of [...input.counts].sort((a, b) => a.lotId.localeCompare(b.lotId)))
			if (await countOne(at, count, input.note.trim())) differ++;
		at.record('parts.counted', {
			of: '1',
			payload: { lots: input.counts.length, differ, note: input.note.trim() }
		});
		return { differ };
	});
}

/** Whether it differs. */
async function countOne(at: Work, { lotId, seen, counted }: CountedLot, note: string) {
	const [lot] = await at.tx.select().from(partLot).where(eq(partLot.id, lotId)).for('update');
	if (!lot) throw new Refusal('not found', 'One of these lots is not in the store any more.');
	if (lot.quantity !== seen)
		throw new Refusal(
			'conflict',
			`${partName(lot.part)}, lot ${lot.lot}: the record says ${lot.quantity} now, not ${seen}; some was used or came in meanwhile. Count it again.`,
			lot.id
		);
	if (counted === seen) return false;
	await at.tx.update(partLot).set({ quantity: counted }).where(eq(partLot.id, lot.id));
	at.record('part.counted', {
		of: lot.id,
		payload: { part: partName(lot.part), lot: lot.lot, from: seen, to: counted, note }
	});
	return true;
}

/** Takes what is left of a lot out of the store: past its date, damaged. */
export function disposeParts(
	context: Context,
	input: { requestId: string; lotId: string; seen: number; why: string }
): Promise<void> {
	const { requestId: id, ...content } = input;
	return write(context, 'keep the stores', { id, content }, async (at) => {
		if (!input.why.trim()) throw new Refusal('invalid', 'Say why they go.', 'why');
		const [lot] = await at.tx
			.select()
			.from(partLot)
			.where(eq(partLot.id, input.lotId))
			.for('update');
		if (!lot) throw new Refusal('not found', 'There is no such lot.');
		if (lot.quantity === 0) return;
		if (lot.quantity !== input.seen)
			throw new Refusal(
				'conflict',
				`${lot.quantity} are in the store now, not ${input.seen}. Look again.`,
				'why'
			);
		await at.tx.update(partLot).set({ quantity: 0 }).where(eq(partLot.id, lot.id));
		at.record('part.disposed', {
			of: lot.id,
			payload: {
				part: partName(lot.part),
				lot: lot.lot,
				quantity: input.seen,
				why: input.why.trim()
			}
		});
	});
}
