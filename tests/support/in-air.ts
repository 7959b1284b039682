import {
	DEFAULT_FACTS,
	publishedLimit,
	type ContaminantFact,
	type HazardFacts
} from '../../src/core/hazards/facts.ts';
import { findSubstance } from '../../src/core/data/substances.ts';
import type { RuleSet } from '../../src/core/data/substance.ts';
import { saturationPpm } from '../../src/core/filters/vapour-pressure.ts';
import type { ConcentrationUnit } from '../../src/core/units/concentration.ts';

/** A library substance in the air; null: not measured. In ppm where nothing else is said. */
export function inAir(
	key: string,
	value: number | null,
	part: Partial<ContaminantFact> & { unit?: ConcentrationUnit } = {}
): ContaminantFact {
	const s = findSubstance(key);
	if (!s) throw new Error(`no substance ${key}`);
	const { unit = 'ppm', ...rest } = part;
	return {
		substance: s.key,
		name: s.name,
		form: s.form,
		concentration: value === null ? null : { value, unit },
		...rest
	};
}

/** So many published limits of it, never more than its vapour can reach. */
export function limitsOf(key: string, times: number, ruleSet: RuleSet): ContaminantFact {
	const s = findSubstance(key);
	const limit = publishedLimit(s, ruleSet);
	if (!s || !limit) throw new Error(`no limit for ${key}`);
	const most = limit.unit === 'ppm' ? (saturationPpm(s, 20) ?? 1e6) * 0.99 : 1e6;
	return inAir(key, Math.min(limit.value * times, most), { unit: limit.unit });
}

/** Facts around what is in the air, with oxygen left out. */
export const airFacts = (
	ruleSet: RuleSet,
	contaminants: ContaminantFact[],
	part: Partial<HazardFacts> = {}
): HazardFacts => ({ ...DEFAULT_FACTS, oxygenPercent: undefined, ruleSet, contaminants, ...part });
