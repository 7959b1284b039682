import type { Severity } from '../data/reject-codes.ts';
import type { Procedure } from '../inspection/procedure.ts';

/** Who gave an answer to which step. */
export interface GivenBy {
	step: string;
	answeredBy: string;
}

/** Which of the two a person has been in a run so far. */
export interface Part {
	/** Started the list, or answered a step of it, also one that was cleared since. */
	first: boolean;
	/** Answered a step that is for a second person. */
	second: boolean;
}

/**
 * What part a person has taken in a run. Two persons are two persons: whoever has been the one is not the other.
 * Common practice.
 */
export function partOf(
	procedure: Pick<Procedure, 'steps'>,
	startedBy: string,
	answers: readonly GivenBy[],
	person: string
): Part {
	const forSecond = new Set(procedure.steps.filter((s) => s.secondPerson).map((s) => s.key));
	const own = answers.filter((answer) => answer.answeredBy === person);
	return {
		first: startedBy === person || own.some((answer) => !forSecond.has(answer.step)),
		second: own.some((answer) => forSecond.has(answer.step))
	};
}

/** Whether a site asks that who wrote a plan does not approve it, and who repaired does not release. */
export interface TwoPeople {
	twoPeople: boolean;
}

/** Whether another than a person approves a plan, because they made it or changed it last. Site; default yes. */
export const anotherApproves = (
	site: TwoPeople,
	plan: { createdBy: string; changedBy: string },
	person: string
): boolean => site.twoPeople && [plan.createdBy, plan.changedBy].includes(person);

/** Whether a repair is released by another than the repairer: always where a stop fault was mended, else by the site. */
export const releasedByAnother = (
	site: TwoPeople,
	mended: readonly { severity: Severity }[]
): boolean => site.twoPeople || mended.some(({ severity }) => severity === 'stop');

/** Whether a repair closes with its own check and by one person: a small job, where nothing stopped the item. */
export const closesItself = (
	repair: { small: boolean; retires: boolean },
	mended: readonly { severity: Severity }[]
): boolean =>
	repair.small && !repair.retires && mended.every(({ severity }) => severity !== 'stop');
