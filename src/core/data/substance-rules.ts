import { published, type Origin } from '../verdict.ts';
import type { RuleSet } from './substance.ts';

/** A rule that a regulation lays on one substance, over the general ladder. */
export interface SubstanceRule {
	substance: string;
	ruleSet: RuleSet;
	origin: Origin;
	text: string;
	/** The rule forbids filters whatever the factor. */
	suppliedAirOnly?: boolean;
	/** Kinds may not be weaker than this factor. */
	minimumFactor?: number;
	/** Longest time a filter may be used, by concentration: the first row that reaches it. */
	changeMin?: { upToPpm: number; minutes: number }[];
}

/** From memory; verify against the current edition. */
export const SUBSTANCE_RULES: readonly SubstanceRule[] = [
	{
		substance: '1-3-butadiene',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1051 table 1'),
		text: 'Butadiene cartridges are replaced by the clock: 4 h up to 5 ppm, 3 h up to 10, 2 h up to 25, 1 h up to 50; above 50 ppm supplied air.',
		changeMin: [
			{ upToPpm: 5, minutes: 240 },
			{ upToPpm: 10, minutes: 180 },
			{ upToPpm: 25, minutes: 120 },
			{ upToPpm: 50, minutes: 60 }
		]
	},
	{
		substance: 'formaldehyde',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1048(g)'),
		text: 'Formaldehyde cartridges are replaced after three hours or at the end of the shift, whichever comes first.',
		changeMin: [{ upToPpm: Infinity, minutes: 180 }]
	},
	{
		substance: 'vinyl-chloride',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1017(g)'),
		text: 'Vinyl chloride: a filter only with one hour of service and up to 10 ppm; Grevan asks for supplied air.',
		suppliedAirOnly: true
	},
	{
		substance: 'dichloromethane',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1052(g) and table 2'),
		text: 'Methylene chloride: no filtering half mask or full-face mask; supplied air.',
		suppliedAirOnly: true
	},
	{
		substance: 'benzene',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1028(g)'),
		text: 'Benzene: cartridges are replaced at the end of their life or at the start of each shift, whichever comes first.',
		changeMin: [{ upToPpm: Infinity, minutes: 480 }]
	},
	{
		substance: 'acrylonitrile',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1045(h)'),
		text: 'Acrylonitrile: cartridges are replaced at the end of their life or at the end of the shift, whichever comes first.',
		changeMin: [{ upToPpm: Infinity, minutes: 480 }]
	}
];

/** The rules of a rule set for a substance. */
export function rulesFor(substanceKey: string | undefined, ruleSet: RuleSet): SubstanceRule[] {
	return SUBSTANCE_RULES.filter(
		(rule) => rule.ruleSet === ruleSet && rule.substance === substanceKey
	);
}
