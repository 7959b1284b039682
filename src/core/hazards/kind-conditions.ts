import type { ProtectionKind } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import { rulesFor } from '../data/substance-rules.ts';
import { warningAdvice } from '../data/warning-advice.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { enTypeOf } from './filter-needed.ts';

/** Whether a contaminant is above its limit and harms bare eyes. */
export const harmsEyes = (c: Contaminant): boolean =>
	c.harms.includes('eyes') && (c.ratio ?? Infinity) > 1;

const POWERED_OR_CANISTER = (kind: ProtectionKind): boolean =>
	kind.key === 'full-face' || kind.blowerLPerMin !== undefined;

/** Why a filtering kind is not worn against something that does not warn. */
export function refusedByWarning(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	ruleSet: RuleSet
): string | undefined {
	for (const c of contaminants) {
		if (!c.gas || c.warning === 'adequate') continue;
		const advice = warningAdvice(c.substance?.key, ruleSet);
		if (advice?.needs === 'canister or powered' && !POWERED_OR_CANISTER(kind))
			return `${c.name} gives no warning to go by: a full-face canister mask or a powered device, no half mask.`;
	}
	return undefined;
}

/** What goes with a permitted kind. */
export function kindConditions(
	kind: ProtectionKind,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	needsGoggles: boolean
): string[] {
	const note = kind.note?.[facts.ruleSet];
	const list = note ? [`${kind.label}: ${note}`] : [];
	if (kind.tightFitting && facts.fitTest !== 'none' && !facts.facialHair)
		list.push('A valid fit test for this model and size.');
	if (needsGoggles) {
		const harming = contaminants.filter(harmsEyes).map((c) => c.name);
		list.push(`${kind.label}: gas-tight goggles with it, against ${harming.join(', ')}.`);
	}
	for (const c of contaminants) {
		for (const rule of rulesFor(c.substance?.key, facts.ruleSet))
			for (const { kinds, text } of rule.conditions ?? [])
				if (!kinds || kinds.includes(kind.key)) list.push(`${c.name}: ${text}`);
		if (kind.source === 'filter' && c.gas) list.push(...clockConditions(c, facts.ruleSet));
	}
	return list;
}

/** How a filter is changed in time where nothing warns. */
function clockConditions(c: Contaminant, ruleSet: RuleSet): string[] {
	const list: string[] = [];
	if (enTypeOf(c) === 'AX')
		list.push(`${c.name}: low boiler, the filter is worn once and discarded after the shift.`);
	if (c.warning === 'adequate') return list;
	const advice = warningAdvice(c.substance?.key, ruleSet);
	list.push(
		advice?.condition
			? `${c.name}: ${advice.condition}`
			: `${c.name}: smell comes too late or not at all; the filter is changed by the clock.`
	);
	return list;
}
