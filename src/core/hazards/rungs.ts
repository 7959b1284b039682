import { rulesFor } from '../data/substance-rules.ts';
import { saturationPpm } from '../filters/vapour-pressure.ts';
import { canEstimate, LOW_BOILER_C } from '../filters/service-life.ts';
import { commonPractice, InputError, published, type Reason } from '../verdict.ts';
import type { HazardOutcome } from './decision.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { enTypeOf, usTypeOf } from './filter-needed.ts';
import { type Finding, ladderOrigin, names, self } from './finding.ts';
import { traceOnly } from './traces.ts';

/** Rung 1: is every contaminant known, measured and comparable with a limit? */
export function known(contaminants: readonly Contaminant[]): Finding {
	const rule = 'hazard.unknown';
	if (contaminants.length === 0)
		return self('Nothing is entered: an unknown air is treated as immediately dangerous.', [
			{ rule, text: 'No contaminant is entered.', origin: ladderOrigin }
		]);
	const reasons = contaminants.flatMap((c): Reason[] => {
		if (c.substance?.biologicalGroup) return [];
		if (!c.concentration)
			return [{ rule, text: `${c.name}: the concentration is not known.`, origin: ladderOrigin }];
		if (c.substance?.noFilter && !c.limit) return [];
		if (!c.limit)
			return [
				{
					rule: 'hazard.no-limit',
					text: `${c.name}: no exposure limit is known under this rule set. Enter the one your assessment uses.`,
					origin: ladderOrigin
				}
			];
		return [];
	});
	return reasons.length
		? self(reasons[0]?.text ?? '', reasons)
		: { text: `${contaminants.length} of ${contaminants.length} known, with a limit`, reasons: [] };
}

/** Rung 4: is it a fire, or an entry for rescue? */
export function fire(facts: HazardFacts): Finding {
	if (!facts.fire && facts.emergency !== 'entry') return { text: 'neither', reasons: [] };
	const text = facts.fire
		? 'Fire: breathing apparatus only.'
		: 'Entry for rescue: the air is treated as immediately dangerous.';
	return {
		outcome: 'self-contained',
		text,
		reasons: [
			{
				rule: facts.fire ? 'hazard.fire' : 'hazard.rescue',
				text,
				origin: published('29 CFR 1910.134(d)(2) and (g)(4)')
			}
		]
	};
}

/** Rung 5: is it worn only to leave? `filterable` says whether no earlier rung calls for own air. */
export function escape(facts: HazardFacts, filterable: boolean): Finding {
	if (facts.emergency !== 'escape') return { text: 'entered to work', reasons: [] };
	const text = filterable
		? 'For leaving only: an escape set suited to these contaminants and to the way out.'
		: 'For leaving only: an escape set with its own air.';
	return {
		outcome: 'escape set',
		text,
		reasons: [{ rule: 'hazard.escape', text, origin: published('29 CFR 1910.134(d)(2)(ii)') }]
	};
}

/** Rung 6: does the vapour itself harm the skin, or enter through it? */
export function skin(contaminants: readonly Contaminant[]): Finding & {
	suit: 'none' | 'skin protection' | 'gas-tight';
} {
	const harming = contaminants.filter(
		(c) =>
			c.substance?.skinHarmPpm !== undefined &&
			(c.peakPpm === undefined || c.peakPpm >= c.substance.skinHarmPpm)
	);
	const entering = contaminants.filter((c) => c.substance?.skin);
	if (harming.length) {
		const text = `${names(harming)} harms the skin at this level: a gas-tight suit with the air supply of its kind.`;
		return {
			suit: 'gas-tight',
			outcome: 'supplied air',
			text,
			reasons: [{ rule: 'hazard.skin', text, origin: commonPractice() }]
		};
	}
	if (entering.length) {
		const text = `${names(entering)} can enter through the skin: gloves and clothing to suit.`;
		return {
			suit: 'skin protection',
			text,
			notes: true,
			reasons: [
				{
					rule: 'hazard.skin-notation',
					text,
					origin: published('skin notations of the limit lists')
				}
			]
		};
	}
	return { suit: 'none', text: 'no skin notation', reasons: [] };
}

/** Rung 7: does a regulation fix the equipment for one of them? */
export function substanceRule(contaminants: readonly Contaminant[], facts: HazardFacts): Finding {
	const reasons: Reason[] = [];
	let outcome: HazardOutcome | undefined;
	for (const c of contaminants)
		for (const rule of rulesFor(c.substance?.key, facts.ruleSet)) {
			const most = rule.filterUpToPpm;
			const value = c.peakPpm ?? Infinity;
			if (rule.suppliedAirOnly || (most !== undefined && value > most)) outcome = 'supplied air';
			reasons.push({
				rule: `substance.${rule.substance}`,
				text: rule.text,
				origin: rule.origin,
				...(most !== undefined && Number.isFinite(value)
					? { limit: most, value, unit: 'ppm', margin: most - value }
					: {})
			});
		}
	return {
		...(outcome ? { outcome } : {}),
		text: reasons[0]?.text ?? 'no own rule for these',
		notes: reasons.length > 0,
		reasons
	};
}

/** Rung 8: does a filter exist that can be relied on for each, and for all of them together? */
export function filterExists(contaminants: readonly Contaminant[], facts: HazardFacts): Finding {
	const reasons: Reason[] = [];
	const trap = (rule: string, text: string) =>
		reasons.push({ rule, text, origin: commonPractice('known traps of air-purifying filters') });
	for (const c of contaminants) {
		// A trace of what only takes the place of air harms by nothing else; below a limit of its own it does no harm.
		if (traceOnly(c)) continue;
		if (c.substance?.noFilter) trap('filter.trap', `${c.substance.noFilter}.`);
		else if (c.gas && !gasTypeKnown(c, facts.ruleSet))
			trap(
				'filter.no-type',
				`${c.name}: no filter type of the ${facts.ruleSet === 'us' ? '42 CFR 84' : 'EN 14387'} scheme is known for it. Supplied air, or a canister that is approved for it by name.`
			);
		else if (c.gas && c.warning !== 'adequate' && !scheduleExists(c))
			trap(
				'filter.no-warning',
				`${c.name} gives no reliable warning and no change schedule can be defended for it.`
			);
		const limit = saturationPpm(c.substance ?? {}, facts.temperatureC);
		if (!c.particle && limit !== undefined && (c.peakPpm ?? 0) > limit)
			throw new InputError(
				`contaminants[${contaminants.indexOf(c)}].concentration`,
				`${c.name}: ${Math.round(c.peakPpm ?? 0)} ppm lies above saturation. At ${facts.temperatureC} °C its vapour reaches ${Math.round(limit)} ppm at most.`
			);
	}
	const organic = contaminants.filter((c) => c.organic && c.gas);
	const low = organic.filter((c) => (c.boilingPointC ?? Infinity) <= LOW_BOILER_C);
	if (low.length && organic.length > 1)
		reasons.push({
			rule: 'filter.low-boiler-mixture',
			text: `${names(low)} boils at or below 65 °C and would be pushed out of the carbon by ${names(organic.filter((c) => c !== low[0]))}: no filter for that mixture.`,
			origin: published('EN 14387, type AX'),
			limit: LOW_BOILER_C,
			value: low[0]?.boilingPointC ?? NaN,
			unit: '°C'
		});
	return reasons.length
		? { outcome: 'supplied air', text: reasons[0]?.text ?? '', reasons }
		: {
				text: contaminants.every((c) => c.warning === 'adequate')
					? 'all of them have warning signs'
					: 'a change schedule stands in for poor warning',
				reasons: []
			};
}

/** A filter needs a type of the scheme in force; that of the other scheme opens no cartridge. */
const gasTypeKnown = (c: Contaminant, ruleSet: HazardFacts['ruleSet']): boolean =>
	(ruleSet === 'us' ? usTypeOf(c) : enTypeOf(c)) !== undefined;

function scheduleExists(c: Contaminant): boolean {
	if (!c.substance) return false;
	return canEstimate(c.substance) || (c.substance.en !== undefined && c.substance.en !== 'A');
}
