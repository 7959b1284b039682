import { type Reason, commonPractice, computed, InputError, published } from '../verdict.ts';
import { compareGroups, FEWEST_EXPECTED } from './exact.ts';
import { wilson, type Share } from './wilson.ts';

export interface NamedGroup {
	name: string;
	failures: number;
	/** Inspections, uses: how often it could have failed. */
	trials: number;
}

export interface RatesCompared {
	rates: ({ name: string } & Share)[];
	/** Chance of so much difference where there is none; 1 for a single group. */
	pValue: number;
	reasons: Reason[];
}

/** Below this chance a difference is taken as more than chance. Common practice. */
export const ONE_IN_TWENTY = 0.05;

const WILSON = published('Wilson 1927, score interval, 95 %');
const BY = {
	exact: published('exact test of the table, Fisher 1922, Freeman & Halton 1951'),
	drawn: published(
		'exact test of the table, Freeman & Halton 1951, tables drawn with the margins held'
	),
	'chi-square': published('Pearson 1900, χ²')
} as const;

const percent = (share: number): string => `${(share * 100).toPrecision(share < 0.1 ? 2 : 3)} %`;
const chanceWords = (p: number): string => (p < 0.001 ? 'below 0.001' : p.toPrecision(2));

/**
 * Rates of several groups, each with its interval, and whether they differ by more than chance.
 * @throws InputError located at what cannot be: no trial, more failures than trials, a count that is not whole, no group
 */
export function compareRates(groups: readonly NamedGroup[]): RatesCompared {
	if (groups.length === 0) throw new InputError('groups', 'Give one group at least.');
	groups.forEach(({ failures, trials }, i) => {
		if (!Number.isInteger(trials) || trials < 1)
			throw new InputError(`groups[${i}].trials`, 'A whole number of trials, one at least.');
		if (!Number.isInteger(failures) || failures < 0)
			throw new InputError(`groups[${i}].failures`, 'A whole number of failures, zero or more.');
		if (failures > trials)
			throw new InputError(`groups[${i}].failures`, 'More failures than trials.');
	});
	const rates = groups.map(({ name, failures, trials }) => ({ name, ...wilson(failures, trials) }));
	const reasons: Reason[] = rates.map(({ name, failures, trials, rate, lower, upper }) => ({
		rule: 'rate',
		text: `${name}: ${failures} of ${trials}, ${percent(rate)}; between ${percent(lower)} and ${percent(upper)} with 95 % confidence.`,
		origin: WILSON,
		value: rate
	}));
	if (rates.length < 2)
		return {
			rates,
			pValue: 1,
			reasons: [
				...reasons,
				{
					rule: 'one-group',
					text: 'One group alone: nothing to compare it with.',
					origin: computed('one group')
				}
			]
		};
	const { pValue, by } = compareGroups(groups);
	const differ = pValue < ONE_IN_TWENTY;
	const highest = rates.reduce((most, each) => (each.rate > most.rate ? each : most));
	reasons.push({
		rule: 'compare-rates',
		text: differ
			? `They differ by more than chance (p ${chanceWords(pValue)}); ${highest.name} is the highest.`
			: `So much difference comes about by chance alone (p ${chanceWords(pValue)}): nothing is shown against any of them.`,
		origin: BY[by],
		limit: ONE_IN_TWENTY,
		value: pValue
	});
	const all = groups.reduce((sum, g) => sum + g.failures, 0);
	if (all < FEWEST_EXPECTED * groups.length)
		reasons.push({
			rule: 'small-numbers',
			text: `${all} ${all === 1 ? 'failure' : 'failures'} in ${groups.length} groups is a small number: a true difference may well not show.`,
			origin: commonPractice()
		});
	return { rates, pValue, reasons };
}
