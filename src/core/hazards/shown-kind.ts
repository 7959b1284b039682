import { recordOf } from '../data/family-records.ts';
import { protectionKind } from '../data/protection-factors.ts';
import { planLife, wornAs, type PlanLife } from '../filters/plan-life.ts';
import type { Bed } from '../filters/wheeler-jonas.ts';
import type { HazardDecision, PermittedKind } from './decision.ts';
import type { HazardFacts } from './facts.ts';

/** The kind that stands first in an answer: a half mask where one is enough without goggles, else the lightest. */
export const shownKind = ({
	permitted
}: Pick<HazardDecision, 'permitted'>): PermittedKind | undefined =>
	permitted.find((one) => recordOf(one.kind).carries === 'half mask' && !one.needsGoggles) ??
	permitted[0];

/** How long the filters of the kind that is shown last; null where it has none. */
export function shownLife(
	decision: HazardDecision,
	facts: HazardFacts,
	bed?: Bed
): PlanLife | null {
	const shown = shownKind(decision);
	const kind = protectionKind(shown?.kind);
	if (decision.outcome !== 'filter' || !shown?.filters || !kind) return null;
	return planLife(decision.contaminants, facts, wornAs(kind, bed));
}
