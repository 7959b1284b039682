import { eq } from 'drizzle-orm';
import type { ReadingFacts } from '../../../core/inspection/reading.ts';
import { readingLimits } from '../../../core/register/model-card.ts';
import type { Connection } from '../db/client.ts';
import { airlineRig, inspectionRun, item, itemModel, user } from '../db/schema/index.ts';
import { Refusal } from '../kernel/refusal.ts';

type RunRow = typeof inspectionRun.$inferSelect;

/** A run that nobody else changes until the transaction ends, with what its readings are judged against. */
export interface LockedRun {
	run: RunRow;
	limits: ReadingFacts;
	withdrawnOn: string | null;
	withdrawnWhy: string | null;
}

/** @throws Refusal where there is no such run */
export async function lockRun(tx: Connection, id: string): Promise<LockedRun> {
	const [locked] = await tx
		.select({
			run: inspectionRun,
			ratedBar: itemModel.ratedBar,
			holdDropBar: itemModel.holdDropBar,
			card: itemModel.card,
			leastInletBar: airlineRig.leastBar,
			withdrawnOn: itemModel.withdrawnOn,
			withdrawnWhy: itemModel.withdrawnWhy
		})
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.innerJoin(itemModel, eq(itemModel.id, item.modelId))
		.leftJoin(airlineRig, eq(airlineRig.itemId, item.id))
		.where(eq(inspectionRun.id, id))
		.for('update', { of: inspectionRun });
	if (!locked) throw new Refusal('not found', 'There is no such inspection.');
	const { run, withdrawnOn, withdrawnWhy, leastInletBar } = locked;
	return { run, withdrawnOn, withdrawnWhy, limits: { ...readingLimits(locked), leastInletBar } };
}

/** @throws Refusal where there is no such run */
export async function requireRun(db: Connection, id: string): Promise<void> {
	const [found] = await db
		.select({ id: inspectionRun.id })
		.from(inspectionRun)
		.where(eq(inspectionRun.id, id));
	if (!found) throw new Refusal('not found', 'There is no such inspection.');
}

/** Why nothing is added to a run any more. */
export async function alreadySigned(tx: Connection, run: RunRow): Promise<Refusal> {
	const [by] = await tx
		.select({ name: user.name })
		.from(user)
		.where(eq(user.id, run.signedBy ?? ''));
	return new Refusal(
		'conflict',
		`${by?.name ?? 'Someone'} has already signed this inspection. A signed inspection is never changed; start a new one.`
	);
}
