import { eq } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { fitProtocol, FIT_PROTOCOLS, judgeProtocol } from '../../../core/fit/protocols.ts';
import { type FitMethod, QUALITATIVE_FACTOR } from '../../../core/people/fit-standing.ts';
import { type AgentKey, agentsFor } from '../../../core/fit/agents.ts';
import { commonPractice, InputError, published, type Reason } from '../../../core/verdict.ts';
import type { Connection } from '../db/client.ts';
import { fitSession, fitTest, itemModel, wearer } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { brokenConstraint, Refusal } from '../kernel/refusal.ts';
import { dayAt } from '../kernel/site.ts';
import { type Work, write } from '../kernel/write.ts';
import { requireAuthorised } from './authorisations.ts';
import { readingsOf } from './fit-acquire.ts';
import { quantitativeNow } from './fit-reading.ts';

/** A fit test that is typed in from a sheet of paper. */
export interface FitTestInput {
	id: string;
	wearerId: string;
	modelId: string;
	size: string;
	method: FitMethod;
	/** Of a quantitative test. */
	protocol: string | null;
	/** Factor of each exercise by its key. */
	factors: Record<string, number>;
	/** Of a qualitative test: what was to be tasted or smelled. */
	agent: string | null;
	/** Of a qualitative test: nothing was tasted or smelled through all of its exercises. */
	noticedNothing: boolean;
	worn: string;
	testedOn: string;
	/** Who tested. */
	tester: string;
}

/** Protocols of the rule set of a site. */
export const protocolsHere = ({ site }: Pick<Context, 'site'>) =>
	FIT_PROTOCOLS.filter(({ ruleSet }) => ruleSet === site.ruleSet);

/** What a test comes to, by its protocol or by what was noticed. */
function judged(input: FitTestInput, mask: 'half' | 'full', ruleSet: 'us' | 'uk') {
	if (input.method === 'quantitative') {
		const protocol = fitProtocol(input.protocol ?? '');
		if (protocol.ruleSet !== ruleSet)
			throw new InputError('protocol', `${protocol.name} is of the other rule set.`);
		const { overall, outcome, reasons } = judgeProtocol(protocol, input.factors, mask);
		return { overall, passed: outcome === 'pass', reasons, mask };
	}
	if (mask === 'full' && ruleSet === 'uk')
		throw new InputError(
			'method',
			'Under the UK rule set a qualitative test is not accepted for a full-face mask.'
		);
	if (!input.agent || !agentsFor(ruleSet, mask).some(({ key }) => key === input.agent))
		throw new InputError('agent', 'Choose what was tasted or smelled.');
	return { ...qualitative(input.noticedNothing), mask };
}

/** What a qualitative test comes to. */
const qualitative = (noticedNothing: boolean) => ({
	overall: null,
	passed: noticedNothing,
	reasons: [
		{
			rule: 'fit.qualitative',
			text: noticedNothing
				? `Nothing was tasted or smelled; it counts for factors up to ${QUALITATIVE_FACTOR}.`
				: 'It was tasted or smelled: the mask leaked.',
			origin: published('29 CFR 1910.134 appendix A')
		}
	] satisfies Reason[]
});

/** Takes a fit test in from a sheet of paper, judged anew from its figures, and signs that it stands there. */
export function saveFitTest(context: Context, input: FitTestInput): Promise<{ passed: boolean }> {
	const { id, ...content } = input;
	return write(context, 'fit-test', { id, content }, (at) => putFitTest(at, input));
}

/** Puts a fit test from paper down, within a write. */
export async function putFitTest(at: Work, input: FitTestInput): Promise<{ passed: boolean }> {
	const { id } = input;
	const { tx, site, today } = at;
	if (input.testedOn > today)
		throw new Refusal('invalid', 'This day has not come yet.', 'testedOn');
	const [held] = await tx.select().from(wearer).where(eq(wearer.id, input.wearerId)).for('update');
	if (!held || held.erasedOn) throw new Refusal('not found', 'There is no such wearer.');
	const { model, mask } = await modelFitted(tx, input.modelId);
	if (!input.size.trim()) throw new Refusal('invalid', 'Say which size was worn.', 'size');
	const result = judged(input, mask, site.ruleSet);
	await requireAuthorised(at, { job: 'fit-test', family: model.family, modelId: model.id });
	const counted = input.method === 'quantitative';
	await keepTest(at, held, model.name, {
		id,
		wearerId: held.id,
		modelId: model.id,
		size: input.size.trim(),
		mask,
		method: input.method,
		ruleSet: site.ruleSet,
		protocol: counted ? input.protocol : null,
		agent: counted ? null : (input.agent as AgentKey),
		factors: counted ? input.factors : null,
		overall: result.overall,
		passed: result.passed,
		reasons: result.reasons,
		worn: input.worn.trim(),
		testedOn: input.testedOn,
		fromPaper: true,
		tester: input.tester.trim(),
		signedBy: at.actor.id,
		signedAt: at.now
	});
	return { passed: result.passed };
}

/** Writes a signed test down, and signs for it. */
async function keepTest(
	{ tx, record }: Work,
	{ id: of, number }: Pick<typeof wearer.$inferSelect, 'id' | 'number'>,
	model: string,
	values: typeof fitTest.$inferInsert
): Promise<void> {
	await tx.insert(fitTest).values(values);
	const { size, method, passed, overall = null, testedOn: on } = values;
	record('fit-test.signed', { of, payload: { number, model, size, method, passed, overall, on } });
}

/**
 * Signs a test that was made here, passed or not: it is judged by its readings, unrounded, and frozen.
 * @throws Refusal where it has not ended, or where an exercise that counts was not measured
 */
export function signSession(
	context: Context,
	input: { requestId: string; id: string }
): Promise<{ testId: string; passed: boolean }> {
	const { requestId, ...content } = input;
	return write(context, 'fit-test', { id: requestId, content }, async (at) => {
		const [row] = await at.tx
			.select({ session: fitSession, wearer, model: itemModel })
			.from(fitSession)
			.innerJoin(wearer, eq(wearer.id, fitSession.wearerId))
			.innerJoin(itemModel, eq(itemModel.id, fitSession.modelId))
			.where(eq(fitSession.id, input.id))
			.for('update', { of: fitSession });
		if (!row) throw new Refusal('not found', 'There is no such fit test.');
		const { session, model } = row;
		await requireAuthorised(at, { job: 'fit-test', family: model.family, modelId: model.id });
		if (!session.endedAt) throw new Refusal('conflict', 'This test has not ended yet.');
		const result = await resultOf(at, session);
		const testId = requestId;
		await keepTest(at, row.wearer, model.name, {
			id: testId,
			wearerId: row.wearer.id,
			modelId: model.id,
			size: session.size,
			mask: session.mask,
			method: session.method,
			ruleSet: session.ruleSet,
			protocol: session.protocol,
			agent: session.agent,
			sessionId: session.id,
			factors: result.factors,
			overall: result.overall,
			passed: result.passed,
			reasons: result.reasons,
			worn: session.worn,
			testedOn: dayAt(session.startedAt, at.site.timeZone),
			testedAt: session.startedAt,
			signedBy: at.actor.id,
			signedAt: at.now
		});
		return { testId, passed: result.passed };
	}).catch((error: unknown) => {
		if (brokenConstraint(error) === 'fit_test_session')
			throw new Refusal('conflict', 'This test was signed already.');
		throw error;
	});
}

/** What a test that was made here comes to. @throws Refusal where it is not whole */
async function resultOf({ tx }: Work, session: typeof fitSession.$inferSelect) {
	if (session.method === 'qualitative') {
		if (session.ended !== 'whole' && session.ended !== 'noticed')
			throw new Refusal(
				'conflict',
				'It was ended before its end: nothing to sign. Begin it again.'
			);
		return { ...qualitative(session.ended === 'whole'), factors: null };
	}
	const { verdict, factors, measured, canPass } = quantitativeNow(
		session,
		await readingsOf(tx, session.id)
	);
	if (!verdict && !canPass)
		return {
			overall: null,
			passed: false,
			factors,
			reasons: [
				{
					rule: 'fit.cannot-pass',
					text: 'Ended early: by what was measured so far it could not be passed any more.',
					origin: commonPractice()
				}
			] satisfies Reason[]
		};
	if (!verdict) {
		const at = measured.find(({ reason }) => reason)?.reason?.text;
		throw new Refusal(
			'conflict',
			`Not every exercise that counts was measured: a test is signed whole. ${at ?? ''} Begin it again.`
		);
	}
	const { overall, outcome, reasons } = verdict;
	return { overall, passed: outcome === 'pass', reasons, factors };
}

/** A model with what a fit test takes it for. @throws Refusal where it seals on no face */
export async function modelFitted(tx: Connection, modelId: string) {
	const [model] = await tx.select().from(itemModel).where(eq(itemModel.id, modelId));
	if (!model) throw new Refusal('invalid', 'Choose the model.', 'modelId');
	const mask = recordOf(model.family).fit;
	if (!mask)
		throw new Refusal(
			'invalid',
			`${model.name} seals on no face: it takes no fit test.`,
			'modelId'
		);
	return { model, mask };
}
