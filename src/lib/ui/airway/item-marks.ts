import { holds, type Severity } from '$core/data/reject-codes';
import type { Procedure } from '$core/inspection/procedure';
import type { StationMark } from './Airway.svelte';

interface AnswerLike {
	step: string;
	value: string;
	code?: string | null;
	severity?: Severity | null;
}

/** The mark of each station after the given answers: the worst of its steps. */
export function marksOfAnswers(
	procedure: Procedure,
	answers: ReadonlyMap<string, AnswerLike>
): Record<string, StationMark> {
	const marks: Record<string, StationMark> = {};
	for (const step of procedure.steps) {
		const answer = answers.get(step.key);
		const next: StationMark = !answer
			? { mark: 'open', says: 'not looked at' }
			: answer.value === 'reject'
				? {
						mark: answer.severity && holds(answer.severity) ? 'reject' : 'watch',
						says: `${answer.code}`
					}
				: answer.value === 'not fitted'
					? { mark: 'not fitted', says: 'not fitted' }
					: { mark: 'good' };
		const held = marks[step.station];
		if (!held || RANK[next.mark] > RANK[held.mark]) marks[step.station] = next;
	}
	return marks;
}

const RANK: Record<StationMark['mark'], number> = {
	'not fitted': 0,
	good: 1,
	open: 2,
	watch: 3,
	reject: 4
};

/** Puts open faults over the marks of the last inspection. */
export function withDefects(
	marks: Record<string, StationMark>,
	defects: readonly { station: string; code: string; severity: Severity }[]
): Record<string, StationMark> {
	const all = { ...marks };
	for (const defect of defects)
		all[defect.station] = {
			mark: holds(defect.severity) ? 'reject' : 'watch',
			says: `${defect.code}`
		};
	return all;
}
