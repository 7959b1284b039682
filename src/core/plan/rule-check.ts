import { recordOf } from '../data/family-records.ts';
import { airwayOf, FAMILIES, inSentence } from '../data/families.ts';
import type { RuleSet } from '../data/substance.ts';
import { InputError, site } from '../verdict.ts';
import { plusDays, plusMonths } from './calendar.ts';
import { EVENT_WHATS } from './events.ts';
import { familyHas } from './rule-scope.ts';
import { type Every, type IntervalRule, whatWords } from './rules.ts';
import { SHIPPED_RULES } from './shipped-rules.ts';

const MOST_MONTHS = 120;
const MOST_DAYS = 3660;

/** The last day that an interval by the calendar allows, from any day on; null: it goes by other things. */
const FROM = '2026-02-01';
function lengthOf(every: Every): string | null {
	if ('months' in every) return plusMonths(FROM, every.months);
	return 'days' in every ? plusDays(FROM, every.days) : null;
}

/** Whether a rule lets something wait longer than the one whose place it takes; one that counts may. */
export function isLooser(
	rule: Pick<IntervalRule, 'every'>,
	than: Pick<IntervalRule, 'every'>
): boolean {
	const [own, other] = [lengthOf(rule.every), lengthOf(than.every)];
	return own === null || other === null
		? JSON.stringify(rule.every) !== JSON.stringify(than.every)
		: own > other;
}

/** What an interval may be, by its unit: least window included days of its shortest month. */
const LIMITS = {
	months: { most: MOST_MONTHS, days: 28 },
	days: { most: MOST_DAYS, days: 1 },
	uses: { most: 10_000, days: 1 },
	hours: { most: 10_000, days: 1 },
	cycles: { most: 20_000, days: 1 }
} as const;
const UNIT_WORDS = {
	months: 'months',
	days: 'days',
	uses: 'uses',
	hours: 'hours',
	cycles: 'fillings'
};

/** @throws InputError at every or windowDays */
function checkEvery(every: Every, window: number): void {
	if ('after' in every) {
		if (!EVENT_WHATS.includes(every.after))
			throw new InputError('every', 'Choose after what it is done.');
		if (window !== 0)
			throw new InputError('windowDays', 'What follows an event has no days before: 0.');
		return;
	}
	const [entry] = Object.entries(every) as [keyof typeof LIMITS, number][];
	const [unit, n] = entry ?? (['days', 0] as const);
	const { most, days } = LIMITS[unit];
	if (!Number.isInteger(n) || n < 1 || n > most)
		throw new InputError('every', `A whole number of ${UNIT_WORDS[unit]} from 1 to ${most}.`);
	if (!Number.isInteger(window) || window < 0 || window >= n * days)
		throw new InputError(
			'windowDays',
			'It counts as due some time before its end: 0 or more, and less than the interval has.'
		);
}

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
	const { what, detail, every, window, replaces, families } = rule;
	checkEvery(every, window);
	if ('cycles' in every && families.some((family) => recordOf(family).air !== 'cylinder'))
		throw new InputError('families', 'Fillings are counted of cylinders only.');
	const having = FAMILIES.filter(({ family }) => familyHas(family, what, detail));
	if (having.length === 0) throw new InputError('detail', 'Choose which one.');
	const bare = families.find((family) => !familyHas(family, what, detail));
	if (bare)
		throw new InputError(
			'families',
			`${airwayOf(bare).plural} have no such thing: ${inSentence(whatWords(what, detail))}.`
		);
	if (replaces !== null) {
		const old = SHIPPED_RULES[ruleSet].find(({ key }) => key === replaces);
		if (!old || old.what !== what)
			throw new InputError(
				'replaces',
				'There is no such rule of this rule set to take the place of.'
			);
		if (isLooser(rule, old) && !reason.trim())
			throw new InputError(
				'reason',
				'It asks for less than the shipped rule does: say why that holds at this site.'
			);
	}
	return { ...rule, origin: site(reason.trim() || 'rule of the site') };
}
