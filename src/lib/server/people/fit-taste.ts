import { eq } from 'drizzle-orm';
import {
	fitAgent,
	QUALITATIVE_EXERCISES,
	qualitativeNow,
	SCREENING_SQUEEZES
} from '../../../core/fit/agents.ts';
import { fitSession } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';
import { closeSession, numberOf } from './fit-acquire.ts';
import { openSession } from './fit-live.ts';

type Step = { requestId: string; id: string };
type Session = typeof fitSession.$inferSelect;
type Done =
	| { step: string; set: Partial<typeof fitSession.$inferInsert> }
	| { ended: 'whole' | 'noticed' | 'stopped'; noticedAt?: string | null };

/** One step of a qualitative test that is under way. */
function step<T extends Step>(
	context: Context,
	{ requestId, ...content }: T,
	work: (at: Work, session: Session) => Done
): Promise<void> {
	return write(context, 'fit-test', { id: requestId, content }, async (at) => {
		const session = await openSession(at, content.id);
		if (session.method !== 'qualitative')
			throw new Refusal('conflict', 'This test is made with a counter.');
		const done = work(at, session);
		if ('ended' in done) return closeSession(at, session.id, done);
		await at.tx.update(fitSession).set(done.set).where(eq(fitSession.id, session.id));
		at.record('fit-test.step', {
			of: session.wearerId,
			payload: { number: await numberOf(at.tx, session.wearerId), step: done.step }
		});
	});
}

/**
 * What came of the look at whether the wearer notices the agent at all: after how many squeezes, 0 for an agent that is
 * not squeezed; null: not at all, and this agent says nothing for them.
 */
export const screened = (context: Context, input: Step & { squeezes: number | null }) =>
	step(context, input, (at, { agent, begunAt }) => {
		if (begunAt) throw new Refusal('conflict', 'The exercises have begun already.');
		if (input.squeezes === null) return { ended: 'stopped' };
		const known: readonly number[] = fitAgent(agent ?? '').squeezed ? SCREENING_SQUEEZES : [0];
		if (!known.includes(input.squeezes))
			throw new Refusal('invalid', `Squeezes are ${known.join(', ')}.`, 'squeezes');
		const { squeezes } = input;
		return { step: `noticed after ${squeezes} squeezes, before the test`, set: { squeezes } };
	});

/** The mask is on and the agent is given: the exercises begin. */
export const beginTasting = (context: Context, input: Step) =>
	step(context, input, (at, { squeezes, begunAt }) => {
		if (squeezes === null)
			throw new Refusal(
				'conflict',
				'First see whether they notice it at all: without that a test says nothing.'
			);
		if (begunAt) throw new Refusal('conflict', 'The exercises have begun already.');
		return { step: 'movements begun', set: { begunAt: at.now } };
	});

/** It was noticed through the mask: the test ends as not passed. */
export const noticed = (context: Context, input: Step) =>
	step(context, input, (at, { begunAt }) => {
		const { exercise } = where(at, begunAt);
		return {
			ended: 'noticed',
			noticedAt: exercise?.key ?? QUALITATIVE_EXERCISES.at(-1)?.key ?? null
		};
	});

/** Nothing was noticed through all of the exercises. @throws Refusal before they are over */
export const noticedNothing = (context: Context, input: Step) =>
	step(context, input, (at, { begunAt }) => {
		if (!where(at, begunAt).done) throw new Refusal('conflict', 'The exercises are not over yet.');
		return { ended: 'whole' };
	});

function where({ now }: Work, begunAt: Date | null) {
	if (!begunAt) throw new Refusal('conflict', 'The exercises have not begun.');
	return qualitativeNow((now.getTime() - begunAt.getTime()) / 1000);
}
