import {
	ASSIGNED_FACTORS,
	type ParticleClass,
	type ProtectionKind
} from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';

export type FitTest = 'quantitative' | 'qualitative' | 'none';

/** What the equipment must catch, and how the wearer's fit was shown. */
export interface FactorUse {
	gas: boolean;
	particles: boolean;
	particleClass: ParticleClass;
	fitTest: FitTest;
}

/** Published: 29 CFR 1910.134 app. A, a qualitative test shows a factor of 10 at most; from memory. */
export const QUALITATIVE_FACTOR_LIMIT = 10;

/**
 * The next assigned factor at or above a hazard ratio; undefined when none of the rule set reaches it.
 * Published: 29 CFR 1910.134(d)(3)(i); EN 529.
 */
export function requiredFactor(hazardRatio: number, ruleSet: RuleSet): number | undefined {
	return ASSIGNED_FACTORS[ruleSet].find((factor) => factor >= hazardRatio);
}

/**
 * Assigned protection factor of a kind for a use; undefined where the rule set does not credit it.
 * Gas and particles together count as the lower of the two.
 */
export function assignedFactor(
	kind: ProtectionKind,
	ruleSet: RuleSet,
	use: FactorUse
): number | undefined {
	if (kind.supplied) return kind.supplied[ruleSet];
	const parts: (number | undefined)[] = [];
	if (use.gas) parts.push(kind.gas?.[ruleSet]);
	if (use.particles) {
		const entry = kind.particle?.[ruleSet];
		parts.push(typeof entry === 'object' ? entry[use.particleClass] : entry);
	}
	if (parts.length === 0 || parts.includes(undefined)) return undefined;
	const factor = Math.min(...parts.filter((part) => part !== undefined));
	return limitByFitTest(kind, ruleSet, use.fitTest, factor);
}

/** A full-face mask with a qualitative test counts 10 in the US pack and is not accepted in the UK pack. */
function limitByFitTest(
	kind: ProtectionKind,
	ruleSet: RuleSet,
	fitTest: FitTest,
	factor: number
): number | undefined {
	const limited = fitTest === 'qualitative' && kind.negativePressure && kind.key === 'full-face';
	if (!limited) return factor;
	return ruleSet === 'us' ? Math.min(factor, QUALITATIVE_FACTOR_LIMIT) : undefined;
}
