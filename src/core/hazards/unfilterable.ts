import { rulesFor } from '../data/substance-rules.ts';
import { canEstimate, LOW_BOILER_C } from '../filters/service-life.ts';
import { commonPractice, published, type Reason } from '../verdict.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { enTypeOf, usTypeOf } from './filter-needed.ts';
import { names } from './finding.ts';
import { TRACE_RATIO } from './traces.ts';

/**
 * Why no filter of the scheme in force can be relied on against a contaminant, beside the others; undefined where
 * one can. What is not caught is breathed whole: it may stay where it lies below its limit.
 */
export function unfilterable(
	c: Contaminant,
	all: readonly Contaminant[],
	ruleSet: HazardFacts['ruleSet']
): Reason | undefined {
	const trap = (rule: string, text: string): Reason => ({
		rule,
		text,
		origin: commonPractice('known traps of air-purifying filters')
	});
	const forbidding = rulesFor(c.substance?.key, ruleSet).find((rule) => rule.suppliedAirOnly);
	if (forbidding)
		return {
			rule: `substance.${forbidding.substance}`,
			text: forbidding.text,
			origin: forbidding.origin
		};
	if (c.substance?.noFilter) return trap('filter.trap', `${c.substance.noFilter}.`);
	if (!c.gas) return undefined;
	if (!(ruleSet === 'us' ? usTypeOf(c) : enTypeOf(c)))
		return trap(
			'filter.no-type',
			`${c.name}: no filter type of the ${ruleSet === 'us' ? '42 CFR 84' : 'EN 14387'} scheme is known for it. Supplied air, or a canister that is approved for it by name.`
		);
	if (c.warning !== 'adequate' && !scheduleExists(c))
		return trap(
			'filter.no-warning',
			`${c.name} gives no reliable warning and no change schedule can be defended for it.`
		);
	return lowBoilerAmong(c, all);
}

/** More than a trace of a low boiler beside other organic vapours: they push it out of the carbon, in either scheme. */
function lowBoilerAmong(c: Contaminant, all: readonly Contaminant[]): Reason | undefined {
	if (!c.organic || (c.boilingPointC ?? Infinity) > LOW_BOILER_C) return undefined;
	if ((c.ratio ?? Infinity) <= TRACE_RATIO) return undefined;
	const others = all.filter((other) => other !== c && other.organic && other.gas);
	if (others.length === 0) return undefined;
	return {
		rule: 'filter.low-boiler-mixture',
		text: `${c.name} boils at or below 65 °C and would be pushed out of the carbon by ${names(others)}: no filter for that mixture.`,
		origin: published('EN 14387, type AX'),
		limit: LOW_BOILER_C,
		value: c.boilingPointC ?? NaN,
		unit: '°C'
	};
}

/** Whether a time can be kept by the clock where nothing warns: the vapour model, a class test, a fixed rule. */
function scheduleExists(c: Contaminant): boolean {
	if (!c.substance) return false;
	if (c.particle) return true;
	return canEstimate(c.substance) || (c.substance.en !== undefined && c.substance.en !== 'A');
}
