import { PLAUSIBLE_STEP_ORIGIN, PLAUSIBLE_STEP_S } from '../data/procedures.ts';
import { holds, rejectCode, type Severity } from '../data/reject-codes.ts';
import { InputError, type Reason, type Verdict } from '../verdict.ts';
import type { Procedure, Step } from './procedure.ts';
import { judgeReading, type ReadingFacts, type Readings } from './reading.ts';

export type AnswerValue = 'good' | 'reject' | 'not fitted' | 'cleared';

/** One answer as it was given; a later one to the same step stands over it. */
export interface AnswerEvent {
	step: string;
	value: AnswerValue;
	code?: string | null;
	note?: string | null;
	/** What was read, at a step that is answered by a reading. */
	readings?: Readings | null;
}

export interface RunState {
	/** The standing answer by step key. */
	answers: ReadonlyMap<string, AnswerEvent>;
	left: readonly Step[];
	done: number;
	total: number;
	complete: boolean;
	/** Most serious reject so far. */
	worst: Severity | null;
}

export type RunOutcome = 'pass' | 'pass, watch' | 'fail';

const ORDER: readonly Severity[] = ['note', 'watch', 'repair', 'stop'];

/**
 * Checks one answer against the procedure.
 * @throws InputError on an unknown step, a code that the step does not list, "not fitted" where a part must be.
 */
export function checkAnswer(procedure: Procedure, answer: AnswerEvent): Step {
	const step = procedure.steps.find((s) => s.key === answer.step);
	if (!step) throw new InputError('step', `No step "${answer.step}" in ${procedure.name}.`);
	if (answer.value === 'not fitted' && !step.ifFitted)
		throw new InputError('value', `${step.title}: this part must be fitted. Missing is a reject.`);
	if (answer.value === 'reject' && !step.rejects.includes(answer.code ?? ''))
		throw new InputError('code', `${step.title}: choose one of ${step.rejects.join(', ')}.`);
	if (step.reading && answer.value === 'good' && !answer.readings)
		throw new InputError('readings', `${step.title}: type what was read; the reading answers it.`);
	if (answer.value !== 'reject' && answer.code)
		throw new InputError('code', 'Only a reject carries a code.');
	return step;
}

/** Where a run stands after its answers, in the order they were given. */
export function runState(procedure: Procedure, events: readonly AnswerEvent[]): RunState {
	const answers = new Map<string, AnswerEvent>();
	for (const event of events) {
		if (event.value === 'cleared') answers.delete(event.step);
		else answers.set(event.step, event);
	}
	const left = procedure.steps.filter((step) => !answers.has(step.key));
	const severities = [...answers.values()].flatMap((a) =>
		a.value === 'reject' && a.code ? [rejectCode(a.code).severity] : []
	);
	return {
		answers,
		left,
		done: procedure.steps.length - left.length,
		total: procedure.steps.length,
		complete: left.length === 0,
		worst: ORDER.findLast((severity) => severities.includes(severity)) ?? null
	};
}

/** The next step without an answer after a given one, going round once; undefined when all are answered. */
export function nextStep(
	procedure: Procedure,
	state: RunState,
	after: string | null
): Step | undefined {
	const from = procedure.steps.findIndex((step) => step.key === after) + 1;
	const around = [...procedure.steps.slice(from), ...procedure.steps.slice(0, from)];
	return around.find((step) => !state.answers.has(step.key));
}

/**
 * The verdict on a finished run.
 * @param seconds from the first answer to the last; a run faster than is humanly plausible is flagged
 * @throws InputError while steps are unanswered
 */
export function judgeRun(
	procedure: Procedure,
	events: readonly AnswerEvent[],
	seconds: number,
	facts: ReadingFacts = { ratedBar: null }
): Verdict<RunOutcome> {
	const state = runState(procedure, events);
	if (!state.complete)
		throw new InputError(
			'answers',
			`${state.left.length} of ${state.total} steps have no answer yet: ${state.left
				.slice(0, 3)
				.map((s) => s.title)
				.join(', ')}${state.left.length > 3 ? ' ...' : ''}.`
		);
	const reasons: Reason[] = procedure.steps.flatMap((step): Reason[] => {
		const answer = state.answers.get(step.key);
		if (answer?.value !== 'reject' || !answer.code) return [];
		const code = rejectCode(answer.code);
		return [
			{
				rule: `inspection.${code.severity}`,
				text: `${step.title}: ${code.name} (${code.code}).`,
				origin: procedure.origin
			}
		];
	});
	const read = procedure.steps.flatMap((step) => {
		const readings = state.answers.get(step.key)?.readings;
		return step.reading && readings ? judgeReading(step, readings, facts).reasons : [];
	});
	if (reasons.length === 0)
		reasons.push({
			rule: 'inspection.good',
			text: `All ${state.total} steps good or not fitted.`,
			origin: procedure.origin
		});
	reasons.push(...read);
	const plausible = state.total * PLAUSIBLE_STEP_S;
	if (seconds < plausible)
		reasons.push({
			rule: 'inspection.too-fast',
			text: `Done in ${Math.round(seconds)} s, faster than the ${plausible} s that looking takes. Flagged for the supervisor.`,
			origin: PLAUSIBLE_STEP_ORIGIN,
			limit: plausible,
			value: Math.round(seconds),
			unit: 's',
			margin: Math.round(seconds) - plausible
		});
	return {
		outcome:
			state.worst && holds(state.worst) ? 'fail' : state.worst === 'watch' ? 'pass, watch' : 'pass',
		reasons
	};
}
