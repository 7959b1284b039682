import type { RuleSet, TargetOrgan } from '../data/substance.ts';
import type { Contaminant } from './facts.ts';
import { factorWithoutLimit } from './least-factor.ts';

/** One sum of ratios: means against 8-hour limits, or peaks against short-term ones. */
export interface MixtureRatio {
	ratio: number;
	by: 'mean' | 'short term';
	/** The organ, where only common organs add up. */
	organ?: TargetOrgan;
	/** Names of the contaminants that were added. */
	members: string[];
}

/** What a contaminant brings to a sum. */
export function shareOf(c: Contaminant, by: MixtureRatio['by']): number {
	return (by === 'mean' ? (c.meanRatio ?? c.ratio) : c.shortRatio) ?? 0;
}

/**
 * Every sum ΣC/limit that has to be met; empty when a contaminant has no ratio. Those that a published least
 * factor stands in for, biological agents and welding fume, are in none.
 *
 * All add up unless the plan says that effects on different organs are independent; then each organ has its own
 * sum, and a contaminant whose organs are not known counts on every one of them.
 * Published: ACGIH TLV booklet, appendix on mixtures, additive formula; from memory.
 */
export function mixtureSums(
	all: readonly Contaminant[],
	mode: 'all' | 'by organ',
	ruleSet: RuleSet
): MixtureRatio[] {
	const contaminants = all.filter((c) => c.ratio !== undefined || !factorWithoutLimit(c, ruleSet));
	if (contaminants.length === 0 || contaminants.some((c) => c.ratio === undefined)) return [];
	const organs = [...new Set(contaminants.flatMap((c) => c.organs))];
	const groups: { organ?: TargetOrgan; members: readonly Contaminant[] }[] =
		mode === 'all' || organs.length === 0
			? [{ members: contaminants }]
			: organs.map((organ) => ({
					organ,
					members: contaminants.filter((c) => c.organs.length === 0 || c.organs.includes(organ))
				}));
	return groups.flatMap(({ members, ...group }) =>
		(['mean', 'short term'] as const).map((by) => ({
			...group,
			by,
			members: members.map((c) => c.name),
			ratio: members.reduce((sum, c) => sum + shareOf(c, by), 0)
		}))
	);
}

/** The largest sum, which the plan is made for; null when a contaminant has no ratio. */
export function mixtureRatio(
	contaminants: readonly Contaminant[],
	mode: 'all' | 'by organ',
	ruleSet: RuleSet
): MixtureRatio | null {
	const [first, ...rest] = mixtureSums(contaminants, mode, ruleSet);
	if (!first) return null;
	return rest.reduce((worst, sum) => (sum.ratio > worst.ratio ? sum : worst), first);
}

/**
 * How far a filter has to bring down what it catches, where others pass it: the largest of Σ caught / (1 − Σ passed)
 * over the sums; null when a contaminant has no ratio, Infinity where what passes fills the limit.
 */
export function filterRatio(
	contaminants: readonly Contaminant[],
	passing: readonly Contaminant[],
	mode: 'all' | 'by organ',
	ruleSet: RuleSet
): number | null {
	const sums = mixtureSums(contaminants, mode, ruleSet);
	if (sums.length === 0) return null;
	return Math.max(
		...sums.map((sum) => {
			const passed = passing
				.filter((c) => sum.members.includes(c.name))
				.reduce((all, c) => all + shareOf(c, sum.by), 0);
			const caught = Math.max(0, sum.ratio - passed);
			return caught === 0 ? 0 : passed >= 1 ? Infinity : caught / (1 - passed);
		})
	);
}
