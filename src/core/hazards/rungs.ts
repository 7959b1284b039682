import { rulesFor } from '../data/substance-rules.ts';
import { saturationPpm } from '../filters/vapour-pressure.ts';
import { readableNumber } from '../units/number.ts';
import { commonPractice, InputError, published, type Reason } from '../verdict.ts';
import type { HazardOutcome } from './decision.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { factorWithoutLimit } from './least-factor.ts';
import { type Finding, ladderOrigin, names, self } from './finding.ts';
import { takesThePlaceOfAir } from './traces.ts';

/** Rung 1: is every contaminant known, measured and comparable with a limit? */
export function known(
	contaminants: readonly Contaminant[],
	ruleSet: HazardFacts['ruleSet']
): Finding {
	const rule = 'hazard.unknown';
	if (contaminants.length === 0)
		return self('Nothing is entered: an unknown air is treated as immediately dangerous.', [
			{ rule, text: 'No contaminant is entered.', origin: ladderOrigin }
		]);
	const reasons = contaminants.flatMap((c): Reason[] => {
		if (c.substance?.biologicalGroup) return [];
		if (!c.concentration)
			return [{ rule, text: `${c.name}: the concentration is not known.`, origin: ladderOrigin }];
		if (!c.limit && (takesThePlaceOfAir(c) || factorWithoutLimit(c, ruleSet))) return [];
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
			// Below its limit nothing has to be worn against it.
			if ((c.ratio ?? Infinity) > 1) {
				if (value > (rule.ownAirAbovePpm ?? Infinity)) outcome = 'self-contained';
				else if (rule.suppliedAirOnly || (most !== undefined && value > most))
					outcome ??= 'supplied air';
			}
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

/**
 * Rung 8: does a filter exist that can be relied on for each, and for all of them together? What passes it may
 * pass while all that does stays below the limit.
 * @throws InputError at a concentration that its vapour cannot reach
 */
export function filterExists(
	contaminants: readonly Contaminant[],
	passing: readonly Passing[],
	facts: HazardFacts,
	place: (c: Contaminant) => number
): Finding {
	for (const c of contaminants) {
		const most = saturationPpm(c.substance ?? {}, facts.temperatureC);
		if (!c.particle && most !== undefined && (c.peakPpm ?? 0) > most)
			throw new InputError(
				`contaminants[${place(c)}].concentration`,
				`${c.name}: ${Math.round(c.peakPpm ?? 0)} ppm lies above saturation. At ${facts.temperatureC} °C its vapour reaches ${Math.round(most)} ppm at most.`
			);
	}
	const reasons = passing.map(({ reason }) => reason);
	if (passing.length === 0)
		return {
			text: contaminants.every((c) => c.warning === 'adequate')
				? 'all of them have warning signs'
				: 'a change schedule stands in for poor warning',
			reasons
		};
	const share = passing.reduce((sum, { c }) => sum + (c.ratio ?? Infinity), 0);
	const barred = reasons.some(({ rule }) => rule === 'filter.low-boiler-mixture');
	if (barred || share > 1 || (share === 1 && passing.length < contaminants.length))
		return { outcome: 'supplied air', text: reasons[0]?.text ?? '', reasons };
	const text = `${names(passing.map(({ c }) => c))} would pass the filter and may: ${readableNumber(share, 3)} of the limit.`;
	return {
		text,
		notes: true,
		reasons: [
			...reasons,
			{
				rule: 'filter.passes',
				text,
				origin: commonPractice('what is not caught is breathed whole'),
				limit: 1,
				value: share,
				unit: '×',
				margin: 1 - share
			}
		]
	};
}

/** A contaminant that no filter can be relied on against, and why. */
export interface Passing {
	c: Contaminant;
	reason: Reason;
}
