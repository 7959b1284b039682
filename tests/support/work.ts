import { randomUUID } from 'node:crypto';
import { procedureFor } from '../../src/core/data/procedures.ts';
import { answer, type Answer } from '../../src/lib/server/inspection/answers.ts';
import { signRun, startRun } from '../../src/lib/server/inspection/runs.ts';
import type { Context } from '../../src/lib/server/kernel/context.ts';

export const steps = procedureFor('half-mask').steps;

/** One answer with a fresh id. */
export const given = (runId: string, step: string, part: Partial<Answer> = {}): Answer => ({
	id: randomUUID(),
	runId,
	step,
	value: 'good',
	seen: 1000,
	...part
});

/** Answers every step good but for the rejects named, by step. */
export async function answerAll(
	context: Context,
	runId: string,
	rejects: Record<string, string> = {}
): Promise<void> {
	for (const step of steps) {
		const code = rejects[step.key];
		await answer(context, given(runId, step.key, code ? { value: 'reject', code } : {}));
	}
}

/** A whole signed inspection. */
export async function inspect(
	context: Context,
	tag: string,
	rejects: Record<string, string> = {}
): Promise<string> {
	const { id } = await startRun(context, { id: randomUUID(), tag });
	await answerAll(context, id, rejects);
	await signRun(context, { requestId: randomUUID(), runId: id });
	return id;
}
