import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import { InputError } from '../verdict.ts';
import type { RuleSet } from '../data/substance.ts';
import { said } from './changes.ts';
import type { HazardDecision, PermittedKind } from './decision.ts';
import type { HazardFacts } from './facts.ts';
import { byBurden } from './kinds.ts';
import { decide } from './ladder.ts';

/** One rule set's answer to the same air. */
export interface Side {
	ruleSet: RuleSet;
	decision: HazardDecision | null;
	/** The answer in a few words, or why there is none. */
	answer: string;
	ratio: number | null;
	required: number | null;
}

/**
 * The same facts under both rule sets, and whether they agree. A limit that the plan enters itself holds for
 * both; listed limits are those of each list.
 */
export function compareRuleSets(
	facts: HazardFacts,
	library: SubstanceLibrary = SHIPPED
): { sides: [Side, Side]; differ: boolean } {
	const side = (ruleSet: RuleSet): Side => {
		try {
			const own = { ...facts, ruleSet };
			const decision = decide(own, library);
			return {
				ruleSet,
				decision,
				answer: said(decision, own),
				ratio: decision.hazardRatio,
				required: decision.requiredFactor
			};
		} catch (error) {
			if (!(error instanceof InputError)) throw error;
			return { ruleSet, decision: null, answer: error.message, ratio: null, required: null };
		}
	};
	const sides: [Side, Side] = [side('us'), side('uk')];
	const key = (s: Side) => [s.decision?.outcome, s.required, s.decision?.permitted[0]?.kind].join();
	return { sides, differ: key(sides[0]) !== key(sides[1]) };
}

/**
 * Permitted kinds in the order in which a site would take them: those it has ready first, then the lighter
 * burden, then the larger margin.
 */
export function rankForSite(
	permitted: readonly PermittedKind[],
	readyByKind: Readonly<Record<string, number>>
): (PermittedKind & { ready: number })[] {
	return permitted
		.map((kind) => ({ ...kind, ready: readyByKind[kind.kind] ?? 0 }))
		.sort((a, b) => Number(b.ready > 0) - Number(a.ready > 0) || byBurden(a, b));
}
