import { and, eq } from 'drizzle-orm';
import { beforeTest, fitAgent, agentsFor } from '../../../core/fit/agents.ts';
import { type FitMask, LEAST_AMBIENT_PER_CM3 } from '../../../core/fit/fit-factor.ts';
import { type FitProtocol, fitProtocol } from '../../../core/fit/protocols.ts';
import { againFrom, sequenceOf, skipFrom } from '../../../core/fit/sequence.ts';
import type { FitMethod } from '../../../core/people/fit-standing.ts';
import type { Connection } from '../db/client.ts';
import { fitSession, itemState, wearer } from '../db/schema/index.ts';
import { fitCounterAt } from '../instruments/fit-counter.ts';
import type { SimulatedFace } from '../instruments/simulated/fit-counter.ts';
import { withInstrument } from '../instruments/with-instrument.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { type Work, write, writeAfter } from '../kernel/write.ts';
import { itemByTag, refuseRetired } from '../register/items.ts';
import { requireAuthorised } from './authorisations.ts';
import { begin, closeSession, endSession, listen, numberOf } from './fit-acquire.ts';
import { counterBusy, type CounterReached, type Counters, reachCounter } from './fit-counters.ts';
import { modelFitted } from './fit-tests.ts';

export interface StartFit {
	id: string;
	wearerId: string;
	/** The number on the badge that was scanned: whoever stands there is whom the page is of. */
	number: string;
	/** Tag of the mask, or else its model and size. */
	tag: string;
	modelId: string;
	size: string;
	method: FitMethod;
	protocol: string | null;
	agent: string | null;
	worn: string;
	/** What was looked at before, by its key. */
	before: string[];
	/** The test that is repeated after the mask was put on anew. */
	againAfter: string | null;
	/** Which counter of the list; left out, the first that is free. */
	counter?: number | undefined;
	/** For a simulated counter only. */
	face?: SimulatedFace | undefined;
}

/**
 * Begins a fit test of somebody who wears the mask now. A counter is taken before it is started: of two who start it at
 * once one is refused; one that then does not start ends the test, to be repeated.
 */
export async function startFit(
	context: Context,
	counters: Counters,
	input: StartFit
): Promise<void> {
	const { face, ...asked } = input;
	const { method } = input;
	let taken: (CounterReached & { protocol: FitProtocol }) | undefined;
	try {
		await writeAfter(
			context,
			'fit-test',
			{ id: input.id, content: asked },
			async () => {
				// What is wrong with the test itself is said before anything is asked of a counter.
				await underTest(context.db, context, input);
				return method === 'quantitative'
					? reachCounter(context.db, counters, input.counter, face)
					: null;
			},
			async (at, reached) => {
				const under = await underTest(at.tx, at, input);
				await requireAuthorised(at, {
					job: 'fit-test',
					family: under.family,
					modelId: under.modelId
				});
				await at.tx.insert(fitSession).values({
					id: input.id,
					wearerId: under.wearerId,
					modelId: under.modelId,
					size: under.size,
					mask: under.mask,
					itemId: under.itemId,
					method,
					ruleSet: at.site.ruleSet,
					protocol: under.protocol?.key ?? null,
					agent: under.agent?.key ?? null,
					worn: input.worn.trim(),
					before: input.before,
					againAfter: input.againAfter,
					counter: reached?.counter ?? null,
					instrument: reached?.instrument ?? '',
					leastRoom: LEAST_AMBIENT_PER_CM3,
					startedBy: at.actor.id,
					startedAt: at.now
				});
				at.record('fit-test.begun', {
					of: under.wearerId,
					payload: {
						number: under.number,
						model: under.model,
						size: under.size,
						way: under.protocol?.name ?? under.agent?.name ?? ''
					}
				});
				if (reached && under.protocol) taken = { ...reached, protocol: under.protocol };
			}
		);
	} catch (error) {
		const broken = brokenConstraint(error);
		if (broken === 'fit_session_one_per_counter') throw counterBusy();
		if (broken === 'fit_session_one_per_wearer')
			throw new Refusal('conflict', 'A test of this wearer is under way already.', 'number');
		throw error;
	}
	if (!taken) return;
	const { address, counter, protocol } = taken;
	try {
		await withInstrument(fitCounterAt(address), 'Begin again.', (one) =>
			one.start(sequenceOf(protocol))
		);
		if (!(await begin(context, input.id))) return;
	} catch (error) {
		await endSession(context, input.id, 'lost');
		throw error;
	}
	listen(context, counters, { id: input.id, counter });
}

/** Everything that a test is about; refused where it cannot be made. */
async function underTest(db: Connection, { site }: Pick<Context, 'site'>, input: StartFit) {
	const [person] = await db.select().from(wearer).where(eq(wearer.id, input.wearerId));
	if (!person || person.erasedOn) throw new Refusal('not found', 'There is no such wearer.');
	if (input.number.trim().toLowerCase() !== person.number.toLowerCase())
		throw new Refusal(
			'conflict',
			`This page is of ${person.name}, number ${person.number}; the badge says ${input.number.trim() || 'nothing'}. Scan the badge of whoever stands here.`,
			'number'
		);
	const worn = await maskWorn(db, input);
	const { model, mask } = await modelFitted(db, worn.modelId);
	const protocol = input.method === 'quantitative' ? protocolFor(input, mask, site.ruleSet) : null;
	const agent = input.method === 'qualitative' ? agentFor(input, mask, site.ruleSet) : null;
	const missing = beforeTest(agent).filter(({ key }) => !input.before.includes(key));
	if (missing.length)
		throw new Refusal(
			'invalid',
			`Before the test: ${missing.map(({ text }) => text.toLowerCase()).join('; ')}.`,
			'before'
		);
	if (mask === 'full' && person.eyewear && !input.worn.trim())
		throw new Refusal(
			'invalid',
			'They need glasses: say what they wear under the full-face mask, such as its insert.',
			'worn'
		);
	if (input.againAfter) await requireAgain(db, input, { modelId: model.id, size: worn.size });
	return {
		...worn,
		wearerId: person.id,
		number: person.number,
		model: model.name,
		family: model.family,
		modelId: model.id,
		mask,
		protocol,
		agent
	};
}

/** The mask that is worn: of the register, by its tag, or by its model and size. */
async function maskWorn(db: Connection, { tag, modelId, size }: StartFit) {
	if (!tag.trim()) {
		if (!size.trim()) throw new Refusal('invalid', 'Scan the mask, or say its size.', 'tag');
		return { itemId: null, modelId, size: size.trim() };
	}
	const { item } = await itemByTag(db, tag);
	refuseRetired(item, 'tag');
	const [state] = await db.select().from(itemState).where(eq(itemState.itemId, item.id));
	if (state?.blocked)
		throw new Refusal(
			'conflict',
			`${item.tag} is ${state.blocked}: a fit test needs a mask that may be worn.`,
			'tag'
		);
	if (modelId && modelId !== item.modelId)
		throw new Refusal('conflict', `${item.tag} is of another model than this test.`, 'tag');
	if (size.trim() && size.trim().toLowerCase() !== item.size.toLowerCase())
		throw new Refusal(
			'conflict',
			`${item.tag} is size ${item.size}; this test is of size ${size.trim()}.`,
			'tag'
		);
	return { itemId: item.id, modelId: item.modelId, size: item.size };
}

function protocolFor({ protocol: key }: StartFit, mask: FitMask, ruleSet: 'us' | 'uk') {
	if (!key) throw new Refusal('invalid', 'Choose the protocol.', 'protocol');
	const protocol = fitProtocol(key);
	if (protocol.ruleSet !== ruleSet)
		throw new Refusal('invalid', `${protocol.name} is of the other rule set.`, 'protocol');
	if (!protocol.masks.includes(mask))
		throw new Refusal('invalid', `${protocol.name} is not for such a mask.`, 'protocol');
	return protocol;
}

function agentFor({ agent: key }: StartFit, mask: FitMask, ruleSet: 'us' | 'uk') {
	if (ruleSet === 'uk' && mask === 'full')
		throw new Refusal(
			'invalid',
			'Under the UK rule set a full-face mask is tested with a counter, never by taste.',
			'agent'
		);
	if (!key) throw new Refusal('invalid', 'Choose what is tasted.', 'agent');
	const agent = fitAgent(key);
	if (!agentsFor(ruleSet, mask).includes(agent))
		throw new Refusal('invalid', `${agent.name} is not used under this rule set.`, 'agent');
	return agent;
}

/** @throws Refusal where the test that is repeated is not of the same wearer and mask, or was not made */
async function requireAgain(
	db: Connection,
	input: StartFit,
	worn: { modelId: string; size: string }
) {
	const [before] = await db
		.select()
		.from(fitSession)
		.where(and(eq(fitSession.id, input.againAfter ?? ''), eq(fitSession.wearerId, input.wearerId)));
	if (!before?.endedAt)
		throw new Refusal('invalid', 'There is no such test to repeat.', 'againAfter');
	if (before.modelId !== worn.modelId || before.size.toLowerCase() !== worn.size.toLowerCase())
		throw new Refusal(
			'conflict',
			`The test that is repeated was of size ${before.size}: put the same mask on anew.`,
			'tag'
		);
}

/** A test that is under way, taken for a change. @throws Refusal where it has ended */
export async function openSession({ tx }: Work, id: string) {
	const [session] = await tx.select().from(fitSession).where(eq(fitSession.id, id)).for('update');
	if (!session) throw new Refusal('not found', 'There is no such fit test.');
	if (session.endedAt) throw new Refusal('conflict', 'This test has ended.');
	return session;
}

/** Has the counter make an exercise again with what follows it, or leave one for the end. */
export async function moveFit(
	context: Context,
	counters: Counters,
	input: { requestId: string; id: string; exercise: string; how: 'again' | 'later' }
): Promise<void> {
	const { requestId, ...content } = input;
	const from = await write(context, 'fit-test', { id: requestId, content }, async (at) => {
		const session = await openSession(at, input.id);
		const protocol = fitProtocol(session.protocol ?? '');
		const { exercise } = input;
		at.record('fit-test.step', {
			of: session.wearerId,
			payload: {
				number: await numberOf(at.tx, session.wearerId),
				step: `${exercise}, ${input.how === 'again' ? 'once more' : 'left for later'}`
			}
		});
		return {
			counter: session.counter,
			from: (input.how === 'again' ? againFrom : skipFrom)(protocol, input.exercise),
			to: sequenceOf(protocol).length - 1
		};
	});
	const address = counters[(from.counter ?? 0) - 1];
	if (!address) throw new Refusal('unavailable', 'The counter is not connected any more.');
	await withInstrument(fitCounterAt(address), 'Press again.', (one) => one.again(from));
}

/** Ends a test before its end; what was counted stays. */
export async function stopFit(
	context: Context,
	counters: Counters,
	input: { requestId: string; id: string }
): Promise<void> {
	const { requestId, ...content } = input;
	const counter = await write(context, 'fit-test', { id: requestId, content }, async (at) => {
		const session = await openSession(at, input.id);
		await closeSession(at, session.id, { ended: 'stopped' });
		return session.counter;
	});
	const address = counters[(counter ?? 0) - 1];
	if (!address) return;
	// A counter that is gone has stopped by itself.
	await withInstrument(fitCounterAt(address), '', (one) => one.stop()).catch(() => undefined);
}
