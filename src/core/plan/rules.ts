import { airwayOf, inSentence } from '../data/families.ts';
import { REPAIRS } from '../data/repairs.ts';
import type { Level } from '../inspection/procedure.ts';
import type { UsePattern } from '../site/places.ts';
import type { Origin } from '../verdict.ts';
import { countedBy, type DueRule, type Interval } from './due.ts';
import { EVENT_WORDS } from './events.ts';

/** What a rule of intervals can ask for again: an inspection, a test, a list of a level, a job on the item. */
export const RULE_WHATS = ['inspection', 'bench test', 'list', 'service'] as const;
export type RuleWhat = (typeof RULE_WHATS)[number];

/** Lists that a rule can ask for, beside the usual inspection. */
export const RULE_LEVELS = [
	'weekly',
	'after use',
	'yearly deep'
] as const satisfies readonly Level[];

const LEVEL_WORDS: Record<(typeof RULE_LEVELS)[number], string> = {
	weekly: 'Short look',
	'after use': 'Closing down',
	'yearly deep': 'Deep inspection'
};

/** How often, by the calendar, by what is counted, or after what happened. */
export type Every = Interval;

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
	/** Of a list its level, of a job its key (data/repairs.ts); of the others empty. */
	detail: string;
	every: Every;
	/** Days, uses, hours or fillings before the last one at which it counts as due. */
	window: number;
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

/** What is to be done again, in words. */
export function whatWords(what: RuleWhat, detail: string): string {
	if (what === 'list')
		return LEVEL_WORDS[detail as (typeof RULE_LEVELS)[number]] ?? `List “${detail}”`;
	if (what === 'service') return REPAIRS.find(({ key }) => key === detail)?.name ?? detail;
	return what === 'inspection' ? 'Inspection' : 'Bench test';
}

/** A rule as it is judged. */
export const asDueRule = ({ what, detail, every, window, origin }: IntervalRule): DueRule => ({
	name: whatWords(what, detail),
	every,
	window,
	origin
});

const plural = (n: number, unit: string) => (n === 1 ? `every ${unit}` : `every ${n} ${unit}s`);

/** How often in words. */
export function everyWords(every: Every): string {
	if ('months' in every) return plural(every.months, 'month');
	if ('days' in every) return plural(every.days, 'day');
	if ('uses' in every) return plural(every.uses, 'use');
	if ('hours' in every) return plural(every.hours, 'hour');
	return 'cycles' in every ? plural(every.cycles, 'filling') : EVENT_WORDS[every.after].after;
}

/** From when it counts as due, in words; '' where nothing comes before its end. */
function windowWords({ every, window }: Pick<IntervalRule, 'every' | 'window'>): string {
	if ('after' in every || window === 0) return '';
	const counted = countedBy(every);
	const unit = counted ? { uses: 'uses', hours: 'hours', cycles: 'fillings' }[counted.by] : 'days';
	return `; due from ${window} ${window === 1 ? unit.slice(0, -1) : unit} before`;
}

/** A rule in words, with the names of what it is narrowed to. */
export function ruleWords(
	rule: Omit<IntervalRule, 'key' | 'origin' | 'replaces'>,
	names: { model?: string | undefined; place?: string | undefined } = {}
): string {
	const { what, detail, every, families, usePattern } = rule;
	const of = families.map((family) => inSentence(airwayOf(family).plural)).join(', ');
	const scope = [
		names.model ?? (of || 'all equipment'),
		usePattern ? `in ${usePattern} use` : '',
		names.place ? `at ${names.place}` : ''
	]
		.filter(Boolean)
		.join(' ');
	return `${whatWords(what, detail)} ${everyWords(every)}, ${scope}${windowWords(rule)}`;
}
