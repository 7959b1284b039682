import { FELT } from '$core/data/felt';
import { findShown, subjectsAt } from '$core/drawings/at';
import { SUBJECTS, type SubjectKey } from '$core/drawings/subjects';
import type { Handed } from '$core/drill/hand-over';
import type { Step } from '$core/inspection/procedure';

/** What somebody finds at a step of a drill: things as they look, and what the hand or the ear says. */
export interface Found {
	seen: { subject: SubjectKey; what: string | null }[];
	felt: string[];
}

/** What is to be found at a step of an item that was handed over. */
export function findAt(family: string, step: Step, handed: Handed): Found {
	const fault = handed.faults.find((one) => one.step === step.key)?.code ?? null;
	const shown = fault ? findShown(family, step.station, fault) : undefined;
	const subjects = subjectsAt(family, step);
	const near = handed.near.includes(step.key)
		? subjects.find((key) => SUBJECTS[key].near !== undefined)
		: undefined;
	return {
		seen: subjects.map((subject) => ({
			subject,
			what:
				shown && 'subject' in shown && shown.subject === subject
					? fault
					: subject === near
						? 'near'
						: null
		})),
		felt: step.rejects.flatMap((code) => {
			const one = findShown(family, step.station, code);
			const felt = one && 'felt' in one ? FELT[code] : undefined;
			return felt ? [code === fault ? felt.found : felt.good] : [];
		})
	};
}
