import { logGamma } from './beta.ts';
import { Chance } from './chance.ts';
import { chiSquareAbove } from './gamma.ts';

/** One of several groups: how many of its trials failed. */
export interface Group {
	failures: number;
	trials: number;
}

export interface Compared {
	pValue: number;
	/** exact: every table counted; drawn: tables drawn at random from all; chi-square: Pearson's, for large counts. */
	by: 'exact' | 'drawn' | 'chi-square';
}

/** From this expected count on in every cell χ² is near enough. Common practice (Cochran's rule). */
export const FEWEST_EXPECTED = 5;
/** So many tables are counted whole. */
const TABLES = 200_000;
const DRAWS = 20_000;
const FEWEST_DRAWS = 1_000;
/** So many single picks are made at most, about a second. */
const PICKS = 50_000_000;
/** Tables as likely as the one seen but for rounding. */
const ALIKE = 1 + 1e-7;

const logChoose = (n: number, k: number): number =>
	logGamma(n + 1) - logGamma(k + 1) - logGamma(n - k + 1);

/**
 * Chance of groups that differ at least so much where all have one true rate, two-sided.
 *
 * Two groups, and small counts of more, by the exact test of the table (Fisher 1922; Freeman & Halton, Biometrika 38 (1951) 141): the tables
 * as likely as the one seen or less; where there are too many of them, up to 20,000 drawn with the margins held, seed fixed. Large
 * counts by Pearson's χ². Published, from memory.
 * @throws RangeError on fewer than two groups, or counts that cannot be
 */
export function compareGroups(groups: readonly Group[]): Compared {
	if (groups.length < 2) throw new RangeError('Two groups at least.');
	for (const { failures, trials } of groups)
		if (
			!Number.isInteger(failures) ||
			!Number.isInteger(trials) ||
			failures < 0 ||
			trials < 1 ||
			failures > trials
		)
			throw new RangeError('Whole counts: trials from one, failures from zero to the trials.');
	const trials = groups.reduce((sum, g) => sum + g.trials, 0);
	const failures = groups.reduce((sum, g) => sum + g.failures, 0);
	if (failures === 0 || failures === trials) return { pValue: 1, by: 'exact' };
	const rarer = Math.min(failures, trials - failures);
	const expected = Math.min(...groups.map((g) => (g.trials * rarer) / trials));
	if (groups.length > 2 && expected >= FEWEST_EXPECTED)
		return { pValue: pearson(groups, failures, trials), by: 'chi-square' };
	// The rarer of both outcomes has the fewer tables; the largest group follows from the others.
	const rare = groups
		.map((g) => ({
			trials: g.trials,
			failures: failures <= trials - failures ? g.failures : g.trials - g.failures
		}))
		.sort((a, b) => a.trials - b.trials);
	const tables = rare
		.slice(0, -1)
		.reduce((product, g) => Math.min(TABLES + 1, product * (Math.min(g.trials, rarer) + 1)), 1);
	if (tables <= TABLES) return { pValue: counted(rare, rarer, trials), by: 'exact' };
	const draws = Math.min(DRAWS, Math.floor(PICKS / (rarer * groups.length)));
	return draws >= FEWEST_DRAWS
		? { pValue: drawn(rare, rarer, draws), by: 'drawn' }
		: { pValue: pearson(groups, failures, trials), by: 'chi-square' };
}

function pearson(groups: readonly Group[], failures: number, trials: number): number {
	const share = failures / trials;
	const x = groups.reduce((sum, g) => {
		const expected = g.trials * share;
		return sum + (g.failures - expected) ** 2 / (expected * (1 - share));
	}, 0);
	return chiSquareAbove(x, groups.length - 1);
}

const logWeight = (groups: readonly Group[]): number =>
	groups.reduce((sum, g) => sum + logChoose(g.trials, g.failures), 0);

function counted(groups: readonly Group[], rarer: number, trials: number): number {
	const all = logChoose(trials, rarer);
	const seen = Math.exp(logWeight(groups) - all) * ALIKE;
	const after = groups.map((_, i) => groups.slice(i + 1).reduce((sum, g) => sum + g.trials, 0));
	let sum = 0;
	const walk = (i: number, left: number, log: number): void => {
		const trialsHere = groups[i]?.trials ?? 0;
		if (i === groups.length - 1) {
			const chance = Math.exp(log + logChoose(trialsHere, left) - all);
			if (chance <= seen) sum += chance;
			return;
		}
		for (let k = Math.max(0, left - (after[i] ?? 0)); k <= Math.min(trialsHere, left); k++)
			walk(i + 1, left - k, log + logChoose(trialsHere, k));
	};
	walk(0, rarer, 0);
	return Math.min(1, sum);
}

/** Monte Carlo of the same test; (hits + 1) / (draws + 1), so that it never claims too much. */
function drawn(groups: readonly Group[], rarer: number, draws: number): number {
	const chance = new Chance(1_951);
	const seen = logWeight(groups);
	const trials = groups.reduce((sum, g) => sum + g.trials, 0);
	let hits = 0;
	for (let draw = 0; draw < draws; draw++) {
		const failures = groups.map(() => 0);
		for (let k = 0; k < rarer; k++) {
			let at = chance.next() * (trials - k);
			const i = groups.findIndex((g, j) => (at -= g.trials - (failures[j] ?? 0)) < 0);
			failures[i] = (failures[i] ?? 0) + 1;
		}
		const log = groups.reduce((sum, g, i) => sum + logChoose(g.trials, failures[i] ?? 0), 0);
		if (log <= seen + Math.log(ALIKE)) hits++;
	}
	return (hits + 1) / (draws + 1);
}
