import { and, asc, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { strictest } from '../../../core/care/batch.ts';
import { BATH_AGENTS, CONTACT_MIN } from '../../../core/care/wash-check.ts';
import { openRows } from '../custody/move.ts';
import type { Connection } from '../db/client.ts';
import { inBatch } from '../db/queries/care.ts';
import { stockContainer, user, washBatch, washReading } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { asBathItem, itemsIn } from './batches.ts';

type Batch = typeof washBatch.$inferSelect;

/** Batches that are under way, the oldest first. */
export async function openBatches(db: Connection) {
	const rows = await db
		.select({
			batch: washBatch,
			by: user.name,
			items: inBatch
		})
		.from(washBatch)
		.innerJoin(user, eq(user.id, washBatch.startedBy))
		.where(isNull(washBatch.endedAt))
		.orderBy(asc(washBatch.startedAt));
	return rows.map(({ batch, ...rest }) => ({ ...rest, batch, readyAt: timerOf(batch) }));
}

/** When the timer of a batch is over, ms; null: none runs. */
export const timerOf = (batch: Batch): number | null =>
	batch.step === 'disinfect' && batch.dosedAt
		? batch.dosedAt.getTime() + (batch.contactMin ?? CONTACT_MIN) * 60_000
		: null;

/** Batches whose agent acts, as timers. */
export async function bathTimers(db: Connection) {
	const rows = await db
		.select()
		.from(washBatch)
		.where(and(isNull(washBatch.endedAt), eq(washBatch.step, 'disinfect')));
	return rows.flatMap(({ id, number, contactMin, dosedAt }) =>
		dosedAt ? [{ id, number, seconds: (contactMin ?? CONTACT_MIN) * 60, startedAt: dosedAt }] : []
	);
}

/** A batch with everything that its page shows. */
export async function batchPage(context: Context, id: string) {
	const { db } = context;
	const [row] = await db
		.select({ batch: washBatch, by: user.name, stockName: stockContainer.name })
		.from(washBatch)
		.innerJoin(user, eq(user.id, washBatch.startedBy))
		.leftJoin(stockContainer, eq(stockContainer.id, washBatch.containerId))
		.where(eq(washBatch.id, id));
	if (!row) throw new Refusal('not found', 'There is no such batch.');
	const [items, readings] = await Promise.all([
		itemsIn(db, id),
		db
			.select({
				id: washReading.id,
				celsius: washReading.celsius,
				measured: washReading.measured,
				at: washReading.takenAt
			})
			.from(washReading)
			.where(eq(washReading.batchId, id))
			.orderBy(asc(washReading.takenAt))
	]);
	const held = await openRows(
		db,
		items.map((one) => one.item.id)
	);
	return {
		...row,
		readings,
		items: items.map(({ item: one, model }) => ({
			tag: one.tag,
			family: one.family,
			size: one.size,
			model,
			where: held.get(one.id)?.where ?? ('shelf' as const)
		})),
		strictest: strictest(
			items.map((one) => asBathItem(one)),
			BATH_AGENTS
		),
		readyAt: timerOf(row.batch)
	};
}

/** The last batches that ended. */
export const endedBatches = (db: Connection, most: number) =>
	db
		.select({
			id: washBatch.id,
			number: washBatch.number,
			endedAt: washBatch.endedAt,
			outcome: washBatch.outcome,
			decision: washBatch.decision,
			agent: washBatch.agent,
			items: inBatch
		})
		.from(washBatch)
		.where(isNotNull(washBatch.endedAt))
		.orderBy(desc(washBatch.endedAt))
		.limit(most);
