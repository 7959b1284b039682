import { recordOf } from '../data/family-records.ts';
import { airwayOf, inSentence } from '../data/families.ts';
import type { RuleSet } from '../data/substance.ts';
import type { UsePattern } from '../site/places.ts';
import { commonPractice, InputError, type Origin, published, site } from '../verdict.ts';
import { plusDays, plusMonths } from './calendar.ts';
import type { DueRule } from './due.ts';

/** What a rule of intervals can ask for again. */
export const RULE_WHATS = ['inspection', 'bench test'] as const;
export type RuleWhat = (typeof RULE_WHATS)[number];

const WHAT_WORDS: Record<RuleWhat, string> = {
	inspection: 'Inspection',
	'bench test': 'Bench test'
};

/** How often, by the calendar. */
export type Every = { months: number } | { days: number };

/** What a rule holds for; what is left empty does not narrow it. */
export interface RuleScope {
	families: readonly string[];
	modelId: string | null;
	usePattern: UsePattern | null;
	placeId: string | null;
}

/** How often something is done again, for what, and since when it counts as due. */
export interface IntervalRule extends RuleScope {
	key: string;
	what: RuleWhat;
	every: Every;
	/** Days before the last one at which it counts as due. */
	windowDays: number;
	/** Key of the shipped rule whose place it takes; null: both hold, and the earlier wins. */
	replaces: string | null;
	origin: Origin;
}

/** An item as rules look at it. */
export interface RuleSubject {
	family: string;
	modelId: string;
	usePattern: UsePattern;
	placeId: string;
}

const ALL: RuleScope = { families: [], modelId: null, usePattern: null, placeId: null };
/** Days before the last at which an inspection counts as due. Site default. */
const WINDOW_DAYS = 7;
const MOST_MONTHS = 120;
const MOST_DAYS = 3660;

/** Rules that come with each rule set. */
export const SHIPPED_RULES: Record<RuleSet, readonly IntervalRule[]> = {
	uk: [
		{
			...ALL,
			key: 'uk-monthly',
			what: 'inspection',
			every: { months: 1 },
			windowDays: WINDOW_DAYS,
			replaces: null,
			origin: published('HSG53 and COSHH regulation 9, thorough examination monthly')
		}
	],
	us: [
		{
			...ALL,
			key: 'us-monthly',
			what: 'inspection',
			every: { months: 1 },
			windowDays: WINDOW_DAYS,
			replaces: null,
			origin: commonPractice('fact of the trade: monthly by the responsible person')
		},
		{
			...ALL,
			key: 'us-emergency',
			what: 'inspection',
			usePattern: 'emergency',
			every: { months: 1 },
			windowDays: WINDOW_DAYS,
			replaces: null,
			origin: published('29 CFR 1910.134(h)(3)(i)(B), emergency use monthly')
		}
	]
};

/** The rules that hold at a site: those of its rule set that none of its own replaces, and its own. */
export function rulesInForce(ruleSet: RuleSet, own: readonly IntervalRule[]): IntervalRule[] {
	const replaced = new Set(own.flatMap(({ replaces }) => replaces ?? []));
	return [...SHIPPED_RULES[ruleSet].filter(({ key }) => !replaced.has(key)), ...own];
}

/** Of some rules those that hold for an item. */
export const rulesFor = (item: RuleSubject, rules: readonly IntervalRule[]): IntervalRule[] =>
	rules.filter(
		({ what, families, modelId, usePattern, placeId }) =>
			(what !== 'bench test' || recordOf(item.family).bench !== null) &&
			(families.length === 0 || families.includes(item.family)) &&
			(modelId === null || modelId === item.modelId) &&
			(usePattern === null || usePattern === item.usePattern) &&
			(placeId === null || placeId === item.placeId)
	);

/** A rule as it is judged. */
export const asDueRule = ({ what, every, windowDays, origin }: IntervalRule): DueRule => ({
	name: WHAT_WORDS[what],
	every,
	window: windowDays,
	origin
});

/** How often in words. */
export function everyWords(every: Every): string {
	const [n, unit] = 'months' in every ? [every.months, 'month'] : [every.days, 'day'];
	return n === 1 ? `every ${unit}` : `every ${n} ${unit}s`;
}

/** A rule in words, with the names of what it is narrowed to. */
export function ruleWords(
	{
		what,
		every,
		windowDays,
		families,
		usePattern
	}: Omit<IntervalRule, 'key' | 'origin' | 'replaces'>,
	names: { model?: string | undefined; place?: string | undefined } = {}
): string {
	const of = families.map((family) => inSentence(airwayOf(family).plural)).join(', ');
	const scope = [
		names.model ?? (of || 'all equipment'),
		usePattern ? `in ${usePattern} use` : '',
		names.place ? `at ${names.place}` : ''
	]
		.filter(Boolean)
		.join(' ');
	return `${WHAT_WORDS[what]} ${everyWords(every)}, ${scope}; due from ${windowDays} days before`;
}

/** Days that an interval has at least, from any day on. */
const FROM = '2026-02-01';
const lengthOf = (every: Every): string =>
	'months' in every ? plusMonths(FROM, every.months) : plusDays(FROM, every.days);

/** Whether a rule lets something wait longer than the one whose place it takes. */
export const isLooser = (rule: Pick<IntervalRule, 'every'>, than: Pick<IntervalRule, 'every'>) =>
	lengthOf(rule.every) > lengthOf(than.every);

/**
 * A rule of a site as it is kept.
 * @param reason why it takes the place of a shipped one; needed where it is looser
 * @throws InputError at the field that cannot be
 */
export function checkRule(
	rule: Omit<IntervalRule, 'origin'>,
	ruleSet: RuleSet,
	reason: string
): IntervalRule {
	const { every, windowDays, replaces } = rule;
	const [n, most, unit] =
		'months' in every ? [every.months, MOST_MONTHS, 'months'] : [every.days, MOST_DAYS, 'days'];
	if (!Number.isInteger(n) || n < 1 || n > most)
		throw new InputError('every', `A whole number of ${unit} from 1 to ${most}.`);
	const days = 'months' in every ? every.months * 28 : every.days;
	if (!Number.isInteger(windowDays) || windowDays < 0 || windowDays >= days)
		throw new InputError(
			'windowDays',
			'It counts as due some days before its end: 0 or more, and fewer than the interval has.'
		);
	if (replaces !== null) {
		const shipped = SHIPPED_RULES[ruleSet].find(({ key }) => key === replaces);
		if (!shipped || shipped.what !== rule.what)
			throw new InputError(
				'replaces',
				'There is no such rule of this rule set to take the place of.'
			);
		if ((isLooser(rule, shipped) || isNarrower(rule, shipped)) && !reason.trim())
			throw new InputError(
				'reason',
				'It asks for less than the shipped rule does: say why that holds at this site.'
			);
	}
	return { ...rule, origin: site(reason.trim() || 'rule of the site') };
}

/** Whether a rule holds for less than another: what it leaves out has none any more. */
const isNarrower = (rule: RuleScope, than: RuleScope): boolean =>
	(rule.families.length > 0 && rule.families.join() !== than.families.join()) ||
	(rule.modelId !== null && rule.modelId !== than.modelId) ||
	(rule.usePattern !== null && rule.usePattern !== than.usePattern) ||
	(rule.placeId !== null && rule.placeId !== than.placeId);
