import { holds, type Severity } from '$core/data/reject-codes';
import type { ItemState } from '$core/readiness/findings';
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

/** Puts the parts of a set over the marks of their stations: a part that is overdue is drawn so where it sits. */
export function withParts(
	marks: Record<string, StationMark>,
	parts: readonly { tag: string; family: string; state: ItemState }[],
	stations: Readonly<Record<string, string>>
): Record<string, StationMark> {
	const all = { ...marks };
	for (const { tag, family, state } of parts) {
		const station = stations[family];
		if (!station || state === 'ready') continue;
		const next: StationMark = {
			mark: state === 'due' ? 'watch' : 'reject',
			says: `${tag} is ${state}`
		};
		const held = all[station];
		if (!held || RANK[next.mark] >= RANK[held.mark]) all[station] = next;
	}
	return all;
}
