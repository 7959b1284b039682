import { commonPractice, published, type Origin } from '../verdict.ts';
import type { RuleSet } from './substance.ts';

/** What is worn, and how, against a gas that gives no warning in time. */
export interface WarningAdvice {
	substance: string;
	/** Left out: in both. */
	ruleSet?: RuleSet;
	/** `canister or powered`: no half mask with cartridges. */
	needs?: 'canister or powered';
	condition: string;
	origin: Origin;
}

/** By substance. From memory; verify against the current edition. */
export const WARNING_ADVICE: readonly WarningAdvice[] = [
	{
		substance: 'hydrogen-sulphide',
		needs: 'canister or powered',
		condition:
			'it dulls the nose within minutes; a meter is worn, the filter changed by the clock.',
		origin: published('NIOSH Pocket Guide, hydrogen sulphide')
	},
	{
		substance: 'nitrogen-dioxide',
		needs: 'canister or powered',
		condition: 'filter NO-P3, once, at most one shift.',
		origin: published('NIOSH Pocket Guide, nitrogen dioxide; EN 14387, NO-P3')
	},
	{
		substance: 'nitric-oxide',
		needs: 'canister or powered',
		condition: 'filter NO-P3, once, at most one shift.',
		origin: published('NIOSH Pocket Guide, nitric oxide; EN 14387, NO-P3')
	},
	{
		substance: 'phosphine',
		needs: 'canister or powered',
		condition: 'only a filter that names phosphine; its level is measured all the time.',
		origin: published('NIOSH Pocket Guide, phosphine; HSE HSG251')
	},
	{
		substance: 'mercury',
		ruleSet: 'us',
		condition: 'only a cartridge with an end-of-service-life indicator, changed when it shows.',
		origin: published('NIOSH Pocket Guide, mercury vapour')
	},
	{
		substance: 'mercury',
		ruleSet: 'uk',
		condition: 'filter Hg-P3, 50 h in all at most, counted.',
		origin: published('EN 14387, Hg-P3')
	},
	{
		substance: 'chlorine-dioxide',
		condition: 'cartridges are accepted; they are changed by the clock.',
		origin: published('NIOSH Pocket Guide, chlorine dioxide')
	},
	{
		substance: 'formaldehyde',
		condition: 'changed after three hours or at the end of the shift, unless an indicator shows.',
		origin: commonPractice('29 CFR 1910.1048, taken in both packs')
	}
];

/** The advice for a substance under a rule set; undefined where none is on record. */
export const warningAdvice = (
	substanceKey: string | undefined,
	ruleSet: RuleSet
): WarningAdvice | undefined =>
	WARNING_ADVICE.find(
		(one) => one.substance === substanceKey && (!one.ruleSet || one.ruleSet === ruleSet)
	);
