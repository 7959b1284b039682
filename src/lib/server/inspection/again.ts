import { eq, max } from 'drizzle-orm';
import type { Connection } from '../db/client.ts';
import { inspectionAnswer, inspectionRun, item } from '../db/schema/index.ts';
import { openDefect } from '../faults/faults.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { procedureAt } from './procedures.ts';
import { startRun } from './runs.ts';

/** A run with the item that it is of. @throws Refusal where there is none */
async function runOf(db: Connection, runId: string) {
	const [found] = await db
		.select({ run: inspectionRun, tag: item.tag, itemId: item.id })
		.from(inspectionRun)
		.innerJoin(item, eq(item.id, inspectionRun.itemId))
		.where(eq(inspectionRun.id, runId));
	if (!found) throw new Refusal('not found', 'There is no such inspection.');
	return found;
}

/**
 * Where answers that a run did not take can be given again: the run itself while it is open, else a new one of the
 * same list on the item, or the one that is open there.
 * @returns the run, and the position of its last answer, which whoever gives them again has been told of
 */
export async function runAgain(
	context: Context,
	{ id, runId }: { id: string; runId: string }
): Promise<{ run: string; seen: number }> {
	const { run, tag } = await runOf(context.db, runId);
	const open = run.signedAt
		? await startRun(context, { id, tag, procedure: run.procedure })
		: { id: run.id };
	const [last] = await context.db
		.select({ position: max(inspectionAnswer.position) })
		.from(inspectionAnswer)
		.where(eq(inspectionAnswer.runId, open.id));
	return { run: open.id, seen: last?.position ?? 0 };
}

/** Reports what was found at a step of a run that does not take it any more, as a fault of its item. */
export function reportFound(
	context: Context,
	found: { id: string; runId: string; step: string; code: string; note: string | null }
): Promise<{ tag: string }> {
	const { id, ...content } = found;
	return write(context, 'inspect', { id, content: { found: content } }, async (at) => {
		const { run, tag, itemId } = await runOf(at.tx, found.runId);
		const procedure = await procedureAt(at.tx, run.procedure, run.procedureVersion);
		const step = procedure.steps.find((s) => s.key === found.step);
		if (!step?.rejects.includes(found.code))
			throw new Refusal('invalid', 'The list has no such fault at this step.', 'code');
		await openDefect(at, {
			id,
			itemId,
			station: step.station,
			code: found.code,
			step: step.key,
			note: found.note
		});
		return { tag };
	});
}
