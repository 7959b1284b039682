import { eq } from 'drizzle-orm';
import { partOf } from '../../../core/people/two-people.ts';
import { inspectionRun } from '../db/schema/index.ts';
import type { Actor, Context } from '../kernel/context.ts';
import { may } from '../kernel/permissions.ts';
import { Refusal } from '../kernel/refusal.ts';
import { write } from '../kernel/write.ts';
import { answersOf } from './answers.ts';
import { alreadySigned, lockRun } from './locked-run.ts';
import { procedureAt } from './procedures.ts';

/**
 * Names the second person of a list, once; what is answered at their steps on the device of the first is theirs from
 * then on.
 * @param input.assistant who has just shown that they stand there
 */
export function nameAssistant(
	context: Context,
	input: { id: string; runId: string; assistant: Pick<Actor, 'id' | 'name' | 'role'> }
): Promise<void> {
	const { id, runId, assistant } = input;
	const content = { runId, assistant: assistant.id };
	return write(context, 'inspect', { id, content }, async (at) => {
		const { tx } = at;
		const { run } = await lockRun(tx, runId);
		if (run.signedAt) throw await alreadySigned(tx, run);
		const procedure = await procedureAt(tx, run.procedure, run.procedureVersion);
		if (!procedure.steps.some((step) => step.secondPerson))
			throw new Refusal('invalid', 'This list is for one person.', 'who');
		if (!may(assistant.role, 'inspect'))
			throw new Refusal('forbidden', `${assistant.name} may not answer a list.`, 'who');
		const answers = await answersOf(tx, run.id);
		if (partOf(procedure, run.startedBy, answers, assistant.id).first)
			throw new Refusal(
				'forbidden',
				`${assistant.name} works at this list already: the second person is another.`,
				'who'
			);
		await tx
			.update(inspectionRun)
			.set({ assistantId: assistant.id })
			.where(eq(inspectionRun.id, run.id));
		at.record('inspection.assisted', {
			of: run.id,
			itemId: run.itemId,
			payload: { assistant: assistant.name, account: assistant.id }
		});
	});
}
