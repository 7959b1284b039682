import { type GateVerdict, OUTCOME_RANK } from './gate.ts';

/** Something ready that could be handed out instead. */
export interface Instead {
	tag: string;
	family: string;
	model: string;
	size: string;
	place: string;
	tightFitting: boolean;
	verdict: GateVerdict;
}

/** More would be a list to read through. */
const MOST = 3;

/**
 * The nearest ways that work: what may be handed out to this person for this task, without conditions first, then here
 * before elsewhere, then the model that was asked for, then what seals before what does not. Common practice.
 */
export function nearestWays(
	asked: { model: string; place: string },
	candidates: readonly Instead[]
): Instead[] {
	const rank = (one: Instead) =>
		OUTCOME_RANK[one.verdict.outcome] * 8 +
		(one.place === asked.place ? 0 : 4) +
		(one.model === asked.model ? 0 : 2) +
		(one.tightFitting ? 0 : 1);
	return candidates
		.filter(({ verdict }) => verdict.outcome !== 'do not')
		.toSorted((a, b) => rank(a) - rank(b) || a.tag.localeCompare(b.tag))
		.slice(0, MOST);
}
