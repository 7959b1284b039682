import { rejectCode, type Severity } from '../data/reject-codes.ts';
import type { Procedure, Step } from '../inspection/procedure.ts';
import type { Readings } from '../inspection/reading.ts';
import type { AnswerValue } from '../inspection/run.ts';
import type { Handed } from './hand-over.ts';
import { rightAnswer } from './hand-over.ts';
import { canBeMet, type Kind, kindOf } from './kinds.ts';
import type { Met } from './schedule.ts';
import { addSignals, NO_SIGNALS, type Signals } from './signal-detection.ts';

/** An answer as a drill keeps it. */
export interface DrillAnswer {
	step: string;
	value: AnswerValue;
	code: string | null;
	readings?: Readings | null;
}

/** What came of a step. */
export type StepResult =
	'found' | 'wrong code' | 'missed' | 'false reject' | 'left alone' | 'misread' | 'not answered';

export interface ScoredStep {
	step: string;
	result: StepResult;
	/** What it is. */
	truth: string | null;
	/** What was said of it. */
	said: string | null;
	near: boolean;
	kind: Kind | null;
	severity: Severity | null;
}

export interface DrillScore {
	steps: ScoredStep[];
	found: number;
	missed: number;
	wrongCodes: number;
	falseRejects: number;
	misread: number;
	/** Steps that were answered against the air. */
	outOfOrder: number;
	seconds: number;
	signals: Signals;
	/** From 0 to 100: the share of the faults that were found, less the share of the good that was rejected. */
	index: number;
}

/** A figure that was read off a gauge may be off by so much, of what it shows. Common practice. */
const READ_WITHIN = 0.02;

/** Whether a figure was read as the set showed it. */
function readRightly(step: Step, shown: Readings, said: Readings | null | undefined): boolean {
	const near = (a: number | undefined, b: number | undefined) =>
		a === undefined || (b !== undefined && Math.abs(a - b) <= Math.max(1, READ_WITHIN * a));
	return step.reading?.kind === 'hold'
		? near(shown.start, said?.start) && near(shown.end, said?.end)
		: near(shown.value, said?.value);
}

/**
 * What a drill comes to. The standing answer of each step counts, the last that was given.
 * @param answers in the order in which they were given
 */
export function scoreDrill(
	procedure: Procedure,
	handed: Handed,
	answers: readonly DrillAnswer[],
	seconds: number
): DrillScore {
	const standing = new Map<string, DrillAnswer>();
	const order: string[] = [];
	for (const answer of answers) {
		if (answer.value === 'cleared') standing.delete(answer.step);
		else {
			standing.set(answer.step, answer);
			if (!order.includes(answer.step)) order.push(answer.step);
		}
	}
	const steps = procedure.steps
		.filter(canBeMet)
		.map((step) => scoreStep(procedure, handed, step, standing.get(step.key)));
	const count = (...results: StepResult[]) =>
		steps.filter(({ result }) => results.includes(result)).length;
	const signals = steps.map(signalsOf).reduce(addSignals, NO_SIGNALS);
	const place = new Map(procedure.steps.map(({ key }, i) => [key, i]));
	const bad = signals.hits + signals.misses;
	const good = signals.falseAlarms + signals.correctRejections;
	const hitRate = bad ? signals.hits / bad : 1;
	const falseRate = good ? signals.falseAlarms / good : 0;
	return {
		steps,
		found: count('found'),
		missed:
			count('missed') +
			steps.filter(({ result, truth }) => result === 'not answered' && truth).length,
		wrongCodes: count('wrong code'),
		falseRejects: count('false reject'),
		misread: count('misread'),
		outOfOrder: order.filter(
			(key, i) => i > 0 && (place.get(key) ?? 0) < (place.get(order[i - 1] ?? '') ?? 0)
		).length,
		seconds,
		signals,
		index: Math.round(100 * Math.max(0, hitRate - falseRate))
	};
}

/** What came of one step by the answer that stands there; undefined: none does. */
export function scoreStep(
	procedure: Procedure,
	handed: Handed,
	step: Step,
	answer: DrillAnswer | undefined
): ScoredStep {
	const truth = rightAnswer(procedure, handed, step);
	const said = answer?.value === 'reject' ? answer.code : null;
	const shown = handed.readings[step.key];
	return {
		step: step.key,
		result: !answer
			? 'not answered'
			: shown && !readRightly(step, shown, answer.readings)
				? 'misread'
				: resultOf(truth, said),
		truth,
		said,
		near: handed.near.includes(step.key),
		kind: truth ? kindOf(procedure.family, step.station, truth) : null,
		severity: truth ? rejectCode(truth).severity : null
	};
}

const resultOf = (truth: string | null, said: string | null): StepResult =>
	truth === null
		? said === null
			? 'left alone'
			: 'false reject'
		: said === null
			? 'missed'
			: said === truth
				? 'found'
				: 'wrong code';

/** Rejecting what is bad is a hit, with whatever code; not answering says that it is good. */
export function signalsOf({ truth, said }: Pick<ScoredStep, 'truth' | 'said'>): Signals {
	return {
		hits: truth && said ? 1 : 0,
		misses: truth && !said ? 1 : 0,
		falseAlarms: !truth && said ? 1 : 0,
		correctRejections: !truth && !said ? 1 : 0
	};
}

/** How each kind of fault of a drill was met, once for each. */
export const metOf = (score: DrillScore): { kind: Kind; met: Met }[] =>
	score.steps.flatMap(({ kind, result }) =>
		kind
			? [
					{
						kind,
						met:
							result === 'found'
								? ('found' as const)
								: result === 'wrong code'
									? ('wrong code' as const)
									: ('missed' as const)
					}
				]
			: []
	);

/** Least index of an exam that is passed. Site default. */
export const EXAM_INDEX = 75;

/** Whether an exam is passed: no fault that stops was let through, and the index is reached; with why not. */
export function judgeExam(score: DrillScore): { passed: boolean; why: string } {
	const through = score.steps.filter(
		({ result, severity }) =>
			severity === 'stop' && (result === 'missed' || result === 'not answered')
	).length;
	const open = score.steps.filter(({ result }) => result === 'not answered').length;
	if (open) return { passed: false, why: `${open} steps were not answered.` };
	if (through)
		return {
			passed: false,
			why:
				through === 1
					? 'One fault that stops an item was let through.'
					: `${through} faults that stop an item were let through.`
		};
	if (score.index < EXAM_INDEX)
		return { passed: false, why: `${score.index} of 100 points; ${EXAM_INDEX} are asked.` };
	return { passed: true, why: `${score.index} of 100 points; ${EXAM_INDEX} are asked.` };
}
