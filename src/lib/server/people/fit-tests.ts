import { eq } from 'drizzle-orm';
import { recordOf } from '../../../core/data/family-records.ts';
import { fitProtocol, FIT_PROTOCOLS, judgeProtocol } from '../../../core/fit/protocols.ts';
import type { FitMethod } from '../../../core/people/fit-standing.ts';
import { commonPractice, InputError, type Reason } from '../../../core/verdict.ts';
import { fitTest, itemModel, wearer } from '../db/schema/index.ts';
import type { Context } from '../kernel/context.ts';
import { Refusal } from '../kernel/refusal.ts';
import { type Work, write } from '../kernel/write.ts';

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
	const reasons: Reason[] = [
		{
			rule: 'fit.qualitative',
			text: input.noticedNothing
				? 'Nothing was tasted or smelled; it counts for factors up to 10.'
				: 'It was tasted or smelled: the mask leaked.',
			origin: commonPractice('qualitative fit test; relied on up to a factor of 10')
		}
	];
	return { overall: null, passed: input.noticedNothing, reasons, mask };
}

/** Takes a fit test in from a sheet of paper, judged anew from its figures, and signs that it stands there. */
export function saveFitTest(context: Context, input: FitTestInput): Promise<{ passed: boolean }> {
	const { id, ...content } = input;
	return write(context, 'fit-test', { id, content }, async (at) => {
		const { tx, site, today } = at;
		if (input.testedOn > today)
			throw new Refusal('invalid', 'This day has not come yet.', 'testedOn');
		const [held] = await tx
			.select()
			.from(wearer)
			.where(eq(wearer.id, input.wearerId))
			.for('update');
		if (!held || held.erasedOn) throw new Refusal('not found', 'There is no such wearer.');
		const { model, mask } = await modelFitted(at, input.modelId);
		if (!input.size.trim()) throw new Refusal('invalid', 'Say which size was worn.', 'size');
		const result = judged(input, mask, site.ruleSet);
		await tx.insert(fitTest).values({
			id,
			wearerId: held.id,
			modelId: model.id,
			size: input.size.trim(),
			mask,
			method: input.method,
			ruleSet: site.ruleSet,
			protocol: input.method === 'quantitative' ? input.protocol : null,
			factors: input.method === 'quantitative' ? input.factors : null,
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
		at.record('fit-test.signed', {
			of: held.id,
			payload: {
				number: held.number,
				model: model.name,
				size: input.size.trim(),
				method: input.method,
				passed: result.passed,
				overall: result.overall,
				on: input.testedOn
			}
		});
		return { passed: result.passed };
	});
}

/** A model with what a fit test takes it for. @throws Refusal where it seals on no face */
async function modelFitted({ tx }: Work, modelId: string) {
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
