import { and, asc, eq, isNull } from 'drizzle-orm';
import { checkHoldStart } from '../../../core/inspection/reading.ts';
import type { Connection } from '../db/client.ts';
import { inspectionRun, item, runTimer } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { steadyAt } from '../kernel/steady.ts';
import { type Work, write } from '../kernel/write.ts';
import { alreadySigned, lockRun } from './locked-run.ts';
import { procedureAt } from './procedures.ts';

/** How long a hold takes where its step does not say, s. Common practice. */
const HOLD_S = 60;

/** Starts the clock of a hold with the pressure before it; starting it anew takes the place of one that runs. */
export function startTimer(
	context: Context,
	input: { id: string; runId: string; step: string; start: number }
): Promise<void> {
	return write(context, 'inspect', { id: input.id, content: input }, async (at) => {
		checkHoldStart(input.start);
		const { run } = await lockRun(at.tx, input.runId);
		if (run.signedAt) throw await alreadySigned(at.tx, run);
		const procedure = await procedureAt(at.tx, run.procedure, run.procedureVersion);
		const step = procedure.steps.find((s) => s.key === input.step);
		if (step?.reading?.kind !== 'hold')
			throw new Refusal('invalid', 'This step takes no hold.', 'step');
		await endTimer(at, run.id, step.key);
		const seconds = step.reading.seconds ?? HOLD_S;
		await at.tx.insert(runTimer).values({
			id: input.id,
			runId: run.id,
			step: input.step,
			startReading: input.start,
			seconds,
			startedBy: at.actor.id,
			startedAt: await steadyAt(at)
		});
		at.record('inspection.hold-started', {
			of: run.id,
			itemId: run.itemId,
			payload: { step: step.key, start: input.start, seconds }
		});
	});
}

/** Ends the hold that runs at a step. @returns it, undefined where none does */
export async function endTimer(at: Work, runId: string, step: string) {
	const [ended] = await at.tx
		.update(runTimer)
		.set({ endedAt: at.now })
		.where(and(eq(runTimer.runId, runId), eq(runTimer.step, step), isNull(runTimer.endedAt)))
		.returning();
	return ended;
}

/** Holds of a run that run. */
export const openTimers = (db: Connection, runId: string) =>
	db
		.select()
		.from(runTimer)
		.where(and(eq(runTimer.runId, runId), isNull(runTimer.endedAt)));

/** Holds that run, whoever started them: seen from every page. */
export const runningTimers = (db: Connection) =>
	db
		.select({
			id: runTimer.id,
			runId: runTimer.runId,
			tag: item.tag,
			seconds: runTimer.seconds,
			startedAt: runTimer.startedAt
		})
		.from(runTimer)
		.innerJoin(inspectionRun, eq(inspectionRun.id, runTimer.runId))
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.where(and(isNull(runTimer.endedAt), isNull(inspectionRun.signedAt)))
		.orderBy(asc(runTimer.startedAt))
		.limit(10);
