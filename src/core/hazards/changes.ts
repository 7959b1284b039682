import { AIR_OXYGEN_PERCENT, SIMPLE_ASPHYXIANTS, TRACE_PPM } from '../data/asphyxiants.ts';
import { rulesFor } from '../data/substance-rules.ts';
import { PARTICLE_CLASSES, PROTECTION_KINDS } from '../data/protection-factors.ts';
import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import { CLASS_LIMIT_PPM } from '../filters/filter-code.ts';
import { assignedFactor } from '../protection/factor.ts';
import type { ConcentrationUnit } from '../units/concentration.ts';
import { readableNumber } from '../units/number.ts';
import { InputError } from '../verdict.ts';
import { OUTCOME_RANK, type HazardDecision, type PermittedKind } from './decision.ts';
import { LEL_FRACTION, RESCUE_LEL_PERCENT } from './danger-rung.ts';
import { written, type Contaminant, type HazardFacts } from './facts.ts';
import { enTypeOf, filterLimitPpm, sameFilter } from './filter-needed.ts';
import { decide } from './ladder.ts';
import { mixtureSums, shareOf } from './mixture.ts';
import { OXYGEN_LINE_PERCENT } from './oxygen-line.ts';

/** A concentration of one contaminant at which the answer becomes another. */
export interface Change {
	/** Place of the contaminant in the plan: the same substance may stand there twice. */
	index: number;
	contaminant: string;
	direction: 'above' | 'below';
	at: number;
	unit: ConcentrationUnit;
	/** What the answer becomes on the far side. */
	becomes: string;
	text: string;
}

/** Step to either side of a threshold at which the answer is asked again. */
const NUDGE = 1e-6;

/**
 * For each contaminant, the nearest concentration above and below at which the answer changes, all else equal.
 *
 * Every threshold that any rung knows is tried by deciding anew on both sides of it, so that what is said here
 * is what the ladder would answer. Contaminants entered as a set of measurements are moved as one value.
 */
export function whatWouldChange(
	facts: HazardFacts,
	decision: HazardDecision,
	library: SubstanceLibrary = SHIPPED
): Change[] {
	const now = signature(decision, facts);
	return decision.contaminants.flatMap((c, i) => {
		const { concentration } = c;
		if (!concentration) return [];
		const answer = (value: number) => answerAt(facts, i, value, library);
		const points = thresholds(c, facts, decision.contaminants).filter(
			(t) => t > 0 && Number.isFinite(t)
		);
		const above = points
			.filter((t) => t >= concentration.value)
			.sort((a, b) => a - b)
			.find((t) => changed(answer(t * (1 + NUDGE)), now, facts));
		const below = points
			.filter((t) => t < concentration.value)
			.sort((a, b) => b - a)
			.find((t) => changed(answer(t * (1 - NUDGE)), now, facts));
		return [
			...(above ? [change(c, i, 'above', above, answer(above * (1 + NUDGE)), facts)] : []),
			...(below ? [change(c, i, 'below', below, answer(below * (1 - NUDGE)), facts)] : [])
		];
	});
}

/** The decision with what would change it as sentences. */
export function decideWithChanges(
	facts: HazardFacts,
	library: SubstanceLibrary = SHIPPED
): HazardDecision {
	const decision = decide(facts, library);
	return {
		...decision,
		changesIf: whatWouldChange(facts, decision, library).map((found) => found.text)
	};
}

/** Every concentration of a contaminant, in its own unit, at which some rung could answer otherwise. */
function thresholds(
	c: Contaminant,
	facts: HazardFacts,
	contaminants: readonly Contaminant[]
): number[] {
	const value = c.concentration?.value ?? 0;
	if (value === 0) return [];
	const perPpm = c.ppm ? value / c.ppm : undefined;
	const inPpm = (ppm: number | undefined) => (perPpm && ppm ? [ppm * perPpm] : []);
	const factors = new Set(
		PROTECTION_KINDS.flatMap((kind) =>
			PARTICLE_CLASSES.flatMap((particleClass) =>
				[true, false].flatMap((gas) => {
					const use = { gas, particles: !gas, particleClass, fitTest: facts.fitTest };
					return assignedFactor(kind, facts.ruleSet, use) ?? [];
				})
			)
		)
	);
	const byFactor = mixtureSums(contaminants, facts.mixture ?? 'all', facts.ruleSet).flatMap(
		(sum) => {
			const share = shareOf(c, sum.by);
			if (!share || !sum.members.includes(c.name)) return [];
			const others = sum.ratio - share;
			return [...factors, 1].map((factor) => ((factor - others) / share) * value);
		}
	);
	const s = c.substance;
	/** Where a sum over all reaches a line, with the others as they are. */
	const bySum = (of: (one: Contaminant) => number | undefined, line: number) => {
		const own = of(c);
		if (!own) return [];
		const others = contaminants.reduce((sum, one) => sum + (of(one) ?? 0), 0) - own;
		return [((line - others) / own) * value];
	};
	const gasOf = (counts: (one: Contaminant) => boolean) => (one: Contaminant) =>
		one.gas && counts(one) ? one.peakPpm : 0;
	const inFilter = gasOf((one) => sameFilter(c, one, facts.ruleSet));
	const ofType = gasOf((one) => enTypeOf(one) === enTypeOf(c));
	return [
		...byFactor,
		...bySum((one) => one.idlhRatio, 1),
		...(c.idlhRatio ? [value / c.idlhRatio] : []),
		...bySum((one) => one.lelRatio, LEL_FRACTION),
		...bySum((one) => one.lelRatio, RESCUE_LEL_PERCENT / 100),
		...inPpm(s?.skinHarmPpm),
		...[filterLimitPpm(c, facts.ruleSet), ...Object.values(CLASS_LIMIT_PPM)].flatMap((most) => [
			...inPpm(most),
			...bySum(inFilter, most),
			...bySum(ofType, most)
		]),
		...inPpm(SIMPLE_ASPHYXIANTS.has(s?.key ?? '') ? TRACE_PPM : undefined),
		...bySum((one) => (one.gas ? one.peakPpm : 0), DISPLACES_TO_LINE_PPM),
		...rulesFor(s?.key, facts.ruleSet).flatMap((rule) => [
			...inPpm(rule.filterUpToPpm),
			...inPpm(rule.ownAirAbovePpm)
		])
	];
}

/** So much gas leaves oxygen at its line, ppm. */
const DISPLACES_TO_LINE_PPM = (1 - OXYGEN_LINE_PERCENT / AIR_OXYGEN_PERCENT) * 1e6;

/** The decision with one contaminant at another concentration; a refusal as what it means. */
function answerAt(
	facts: HazardFacts,
	index: number,
	value: number,
	library: SubstanceLibrary
): HazardDecision | string {
	const contaminants = facts.contaminants.map((fact, i) => {
		if (i !== index) return fact;
		const unit = fact.measurements?.unit ?? fact.concentration?.unit ?? 'ppm';
		return { ...fact, measurements: null, concentration: { value, unit } };
	});
	try {
		return decide({ ...facts, contaminants }, library);
	} catch (error) {
		if (error instanceof InputError)
			return error.path === 'oxygenPercent'
				? 'the oxygen that is entered cannot be there beside it'
				: 'more than the air can hold';
		throw error;
	}
}

const changed = (answer: HazardDecision | string, now: string, facts: HazardFacts) =>
	typeof answer === 'string' || signature(answer, facts) !== now;

/** What a reader would call the answer: the outcome, the lightest kind and its filter. */
function signature(decision: HazardDecision, facts: HazardFacts): string {
	const first = lightest(decision);
	return [decision.outcome, first?.kind, codeOf(first, facts), decision.suit].join('|');
}

const lightest = (decision: HazardDecision) => decision.permitted[0];
const codeOf = (kind: PermittedKind | undefined, facts: HazardFacts) =>
	kind?.filters?.[facts.ruleSet === 'us' ? 'us' : 'en'] ?? '';

function change(
	c: Contaminant,
	index: number,
	direction: 'above' | 'below',
	at: number,
	answer: HazardDecision | string,
	facts: HazardFacts
): Change {
	const unit = c.concentration?.unit ?? 'ppm';
	const becomes = typeof answer === 'string' ? answer : said(answer, facts);
	const side = direction === 'above' ? 'Above' : 'Below';
	return {
		index,
		contaminant: c.name,
		direction,
		at,
		unit,
		becomes,
		text: `${side} ${readableNumber(at, 4)} ${written(unit)} of ${c.name}: ${becomes}.`
	};
}

/** The answer in a few words. */
export function said(decision: HazardDecision, facts: HazardFacts): string {
	const first = lightest(decision);
	if (OUTCOME_RANK[decision.outcome] >= OUTCOME_RANK['escape set'] || !first)
		return decision.outcome === 'stop' ? 'nobody goes in' : decision.outcome;
	const code = codeOf(first, facts);
	const suit = decision.suit === 'gas-tight' ? ' and a gas-tight suit' : '';
	return `${first.label.toLowerCase()}${code ? `, ${code}` : ''}${suit}`;
}
