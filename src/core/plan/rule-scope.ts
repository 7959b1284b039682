import { recordOf } from '../data/family-records.ts';
import { PROCEDURES } from '../data/procedures.ts';
import { REPAIRS } from '../data/repairs.ts';
import type { RuleSet } from '../data/substance.ts';
import type { IntervalRule, RuleSubject, RuleWhat } from './rules.ts';
import { SHIPPED_RULES } from './shipped-rules.ts';

/** All rules of a site: those of its rule set and its own; which hold for an item, `rulesFor` says. */
export const rulesOf = (ruleSet: RuleSet, own: readonly IntervalRule[]): IntervalRule[] => [
	...SHIPPED_RULES[ruleSet],
	...own
];

/** Whether a family can have what a rule asks for. */
export function familyHas(family: string, what: RuleWhat, detail: string): boolean {
	if (what === 'bench test') return recordOf(family).bench !== null;
	if (what === 'list')
		return PROCEDURES.some((p) => p.family === family && p.levels?.some((one) => one === detail));
	if (what === 'service')
		return REPAIRS.some((job) => job.key === detail && job.families.includes(family));
	return true;
}

/** Whether a rule is about an item. */
export const holdsFor = (
	item: RuleSubject,
	{ what, detail, families, modelId, usePattern, placeId }: IntervalRule
): boolean =>
	(families.length === 0 || families.includes(item.family)) &&
	(modelId === null || modelId === item.modelId) &&
	(usePattern === null || usePattern === item.usePattern) &&
	(placeId === null || placeId === item.placeId) &&
	familyHas(item.family, what, detail);

/** Of some rules those that hold for an item. One that takes the place of another does so where it holds itself, and nowhere else. */
export function rulesFor(item: RuleSubject, rules: readonly IntervalRule[]): IntervalRule[] {
	const about = rules.filter((rule) => holdsFor(item, rule));
	const replaced = new Set(about.map(({ replaces }) => replaces));
	return about.filter(({ key }) => !replaced.has(key));
}
