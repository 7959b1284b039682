import { commonPractice, published, type Origin } from '../verdict.ts';
import type { RuleSet } from './substance.ts';

/** A rule that a regulation or its guidance lays on one substance, over the general ladder. */
export interface SubstanceRule {
	substance: string;
	ruleSet: RuleSet;
	origin: Origin;
	text: string;
	/** Forbids filters whatever the factor. */
	suppliedAirOnly?: boolean;
	/** Filters are forbidden above this mean concentration. */
	filterUpToPpm?: number;
	/** Above it an airline is not enough either: breathing apparatus, or an airline with an escape cylinder. */
	ownAirAbovePpm?: number;
	/** What goes with the answer; only with some kinds, by key, where those are named. */
	conditions?: readonly { kinds?: readonly string[]; text: string }[];
	/** Kinds that may not be worn, by key, and why. */
	refused?: { kinds: readonly string[]; because: string };
	/** Kinds may not be weaker than this factor. */
	minimumFactor?: number;
	/** Least particle filter, in both schemes. */
	particle?: { en: 'P3'; us: 'P100' };
	/** Longest time a filter may be used, by concentration: the first row that reaches it. */
	changeMin?: readonly { upToPpm: number; minutes: number }[];
}

const SHIFT = [{ upToPpm: Infinity, minutes: 480 }] as const;
const NO_FULL_FACE = [
	'filtering-facepiece',
	'half-mask',
	'powered-half-mask',
	'powered-hood',
	'airline-half-mask-demand',
	'airline-half-mask',
	'airline-hood'
] as const;
const HALF_MASKS = [
	'filtering-facepiece',
	'half-mask',
	'powered-half-mask',
	'airline-half-mask-demand',
	'airline-half-mask'
] as const;
const HIGHEST = { en: 'P3', us: 'P100' } as const;

/** From memory; verify against the current edition. */
export const SUBSTANCE_RULES: readonly SubstanceRule[] = [
	{
		substance: '1-3-butadiene',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1051 table 1'),
		text: 'Butadiene cartridges are replaced by the clock: 4 h up to 5 ppm, 3 h up to 10, 2 h up to 25, 1 h up to 50; above 50 ppm supplied air.',
		filterUpToPpm: 50,
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
		text: 'Formaldehyde cartridges are replaced after three hours or at the end of the shift, whichever comes first; a half mask only with goggles that fit gas-tight.',
		changeMin: [{ upToPpm: Infinity, minutes: 180 }],
		conditions: [{ kinds: HALF_MASKS, text: 'a half mask only with goggles that fit gas-tight.' }]
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
		substance: 'ethylene-oxide',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1047(g) and table 1'),
		text: 'Ethylene oxide: no half mask, and a full-face mask only with a canister approved for it up to 50 ppm; Grevan asks for supplied air.',
		suppliedAirOnly: true
	},
	{
		substance: 'benzene',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1028(g)'),
		text: 'Benzene: cartridges are replaced at the end of their life or at the start of each shift, whichever comes first.',
		changeMin: SHIFT
	},
	{
		substance: 'acrylonitrile',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1045(h)'),
		text: 'Acrylonitrile: cartridges are replaced at the end of their life or at the end of the shift, whichever comes first.',
		changeMin: SHIFT
	},
	{
		substance: 'asbestos',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1001(g)(2) and (3)'),
		text: 'Asbestos: no filtering facepiece; particle filters of class 100 only; the wearer may ask for a powered tight-fitting mask instead.',
		conditions: [{ text: 'the wearer may ask for a powered tight-fitting mask instead.' }],
		refused: {
			kinds: ['filtering-facepiece'],
			because: 'A filtering facepiece is not accepted against asbestos.'
		},
		particle: HIGHEST
	},
	{
		substance: 'asbestos',
		ruleSet: 'uk',
		origin: published('Control of Asbestos Regulations 2012 and HSE HSG247'),
		text: 'Asbestos: P3 only. Half masks for non-licensed work of short duration alone; licensed work is done with a powered full-face mask, TM3, or air-fed.',
		minimumFactor: 20,
		conditions: [
			{
				kinds: [
					'filtering-facepiece',
					'half-mask',
					'full-face',
					'powered-hood',
					'powered-half-mask'
				],
				text: 'only for work that needs no licence, of short duration.'
			}
		],
		particle: HIGHEST
	},
	{
		substance: 'lead',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1025(f)(3)'),
		text: 'Lead: particle filters of class 100; a full-face mask where eyes or skin are irritated.',
		conditions: [{ kinds: HALF_MASKS, text: 'a full-face mask where eyes or skin are irritated.' }],
		particle: HIGHEST
	},
	{
		substance: 'lead',
		ruleSet: 'uk',
		origin: published('Control of Lead at Work Regulations 2002, approved code of practice L132'),
		text: 'Lead: protection is worn wherever exposure is significant, above half the limit.',
		conditions: [{ text: 'worn wherever exposure is significant, above half the limit.' }]
	},
	{
		substance: 'cadmium',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1027(g)(3)'),
		text: 'Cadmium: particle filters of class 100; a full-face mask where eyes are irritated.',
		conditions: [{ kinds: HALF_MASKS, text: 'a full-face mask where eyes are irritated.' }],
		particle: HIGHEST
	},
	{
		substance: 'arsenic',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1018(h)(3)'),
		text: 'Inorganic arsenic: particle filters of class 100; no half mask where it can harm eyes or skin.',
		conditions: [{ kinds: HALF_MASKS, text: 'no half mask where it can harm eyes or skin.' }],
		particle: HIGHEST
	},
	{
		substance: 'chromium-vi',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1026(g)'),
		text: 'Chromium(VI): chosen by 1910.134; engineering controls come first, and protection is kept clean of it.',
		conditions: [{ text: 'engineering controls come first, and protection is kept clean of it.' }]
	},
	{
		substance: 'silica',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1053(g), and 1926.1153 table 1 for building work'),
		text: 'Respirable silica: chosen by 1910.134; table 1 of the building rule fixes a factor of 10 or 25 for listed tasks.',
		conditions: [{ text: 'building work: table 1 fixes a factor of 10 or 25 for listed tasks.' }]
	},
	{
		substance: 'silica',
		ruleSet: 'uk',
		origin: published('HSE HSG258 and the COSHH essentials sheets for silica'),
		text: 'Respirable silica: a factor of at least 20, that is P3, for cutting, grinding and blasting.',
		minimumFactor: 20
	},
	{
		substance: 'beryllium',
		ruleSet: 'us',
		origin: published('29 CFR 1910.1024(g)'),
		text: 'Beryllium: chosen by 1910.134; the wearer may ask for a powered mask instead.',
		conditions: [{ text: 'the wearer may ask for a powered mask instead.' }]
	},
	{
		substance: 'methyl-bromide',
		ruleSet: 'uk',
		origin: published('HSE fumigation guidance HSG251'),
		text: 'Fumigants: breathing apparatus until the air is tested and found clear.',
		suppliedAirOnly: true,
		ownAirAbovePpm: 0,
		conditions: [{ text: 'until the air is tested and found clear.' }]
	},
	{
		substance: 'phosphine',
		ruleSet: 'uk',
		origin: published('HSE fumigation guidance HSG251'),
		text: 'Phosphine: a full-face mask with a filter that names it, for venting and clearance only and up to 15 ppm; breathing apparatus above, and where the level is not measured all the time.',
		ownAirAbovePpm: 15,
		conditions: [
			{
				text: 'for venting and clearance only, with its level measured all the time; else breathing apparatus.'
			}
		],
		refused: {
			kinds: NO_FULL_FACE,
			because: 'Against a fumigant the eyes are covered too: a full-face mask at least.'
		}
	},
	{
		substance: 'phosphine',
		ruleSet: 'us',
		origin: published('fumigant label directions under 40 CFR 156'),
		text: 'Phosphine: from 0.3 to 15 ppm a full-face canister mask approved for it; above that, or unknown, breathing apparatus.',
		ownAirAbovePpm: 15,
		refused: {
			kinds: NO_FULL_FACE,
			because: 'The label of the fumigant asks for a full-face canister mask.'
		}
	},
	{
		substance: 'hydrogen-sulphide',
		ruleSet: 'us',
		origin: commonPractice('its smell dulls within minutes'),
		text: 'Hydrogen sulphide: no filter is changed on smell; a meter is worn.',
		conditions: [{ text: 'no filter is changed on smell; a meter is worn.' }]
	},
	{
		substance: 'hydrogen-sulphide',
		ruleSet: 'uk',
		origin: commonPractice('its smell dulls within minutes'),
		text: 'Hydrogen sulphide: no filter is changed on smell; a meter is worn.',
		conditions: [{ text: 'no filter is changed on smell; a meter is worn.' }]
	}
];

/** The rules of a rule set for a substance. */
export function rulesFor(substanceKey: string | undefined, ruleSet: RuleSet): SubstanceRule[] {
	return SUBSTANCE_RULES.filter(
		(rule) => rule.ruleSet === ruleSet && rule.substance === substanceKey
	);
}

/**
 * Rules that fix a change time for a substance, of either rule set: a time that one regulation fixes is the best that
 * is known of its filter anywhere.
 */
export const changeRulesFor = (substanceKey: string | undefined): SubstanceRule[] =>
	SUBSTANCE_RULES.filter((rule) => rule.changeMin && rule.substance === substanceKey);
