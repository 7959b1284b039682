import { protectionKind } from '../data/protection-factors.ts';
import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import { requiredFactor } from '../protection/factor.ts';
import { commonPractice, published, type Reason } from '../verdict.ts';
import {
	OUTCOME_RANK,
	type HazardDecision,
	type HazardOutcome,
	type Rung,
	type RungKey
} from './decision.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { filterRatio, mixtureRatio } from './mixture.ts';
import { conditionsOf } from './conditions.ts';
import { resolveContaminant } from './resolve.ts';
import { chooseKinds, type KindChoice, type Need } from './kinds.ts';
import { type LeastFactor, leastFactorOf } from './least-factor.ts';
import { factorRung } from './factor-rung.ts';
import { immediateDanger } from './danger-rung.ts';
import type { Finding } from './finding.ts';
import { oxygenRung } from './oxygen-rung.ts';
import * as rungs from './rungs.ts';
import { isNone, traceOnly } from './traces.ts';
import { unfilterable } from './unfilterable.ts';

const TITLES: Record<RungKey, string> = {
	known: 'Known, and measured',
	oxygen: 'Oxygen',
	'immediate-danger': 'Below immediate danger',
	fire: 'No fire, no rescue',
	escape: 'Not for escape only',
	skin: 'Skin',
	'substance-rule': 'Own rule for the substance',
	'filter-exists': 'A filter exists',
	factor: 'Protection factor',
	fit: 'Fit',
	wear: 'Wearing it'
};

/**
 * Climbs the decision ladder from what is in the air to what may be worn.
 *
 * Rungs are taken in order and the first that decides ends it; the altitude exception only sets a floor, so
 * that a worse finding further up still counts. Escape-only plans always end in an escape set, whose kind the
 * earlier rungs fix (published: 29 CFR 1910.134(d)(2)(ii)).
 * @throws InputError located by field on facts that cannot be.
 */
export function decide(facts: HazardFacts, library: SubstanceLibrary = SHIPPED): HazardDecision {
	const contaminants = facts.contaminants.map((fact, i) =>
		resolveContaminant(fact, i, facts, library)
	);
	const place = (c: Contaminant) => contaminants.indexOf(c);
	// What was entered as nothing is not there; the reminder that it was measured stays.
	const present = contaminants.filter((c) => !isNone(c));
	const climb = new Climb();
	const skin = rungs.skin(present);
	const known = rungs.known(contaminants, facts.ruleSet);
	const oxygen = oxygenRung(facts, present);
	const dangers = [oxygen, immediateDanger(present, facts), rungs.fire(facts)] as const;
	const leaving = facts.emergency === 'escape';
	// What must stop everything may not be hidden behind an earlier rung, and leaving is always allowed.
	const soften = (finding: Finding) => (leaving ? asNote(finding) : finding);

	const stops = [oxygen, dangers[1]].some((found) => found.outcome === 'stop');
	const unlessStopped = (finding: Finding) =>
		stops && finding.outcome !== 'stop' ? asNote(finding) : soften(finding);
	climb.take('known', unlessStopped(known));
	climb.take('oxygen', unlessStopped(oxygen), { floorOnly: 'supplied air' });
	climb.take('immediate-danger', soften(dangers[1]));
	climb.take('fire', soften(dangers[2]));
	climb.take('escape', rungs.escape(facts, ![known, ...dangers].some((found) => found.outcome)));
	climb.take('skin', skin);
	const mode = facts.mixture ?? 'all';
	const mixture = mixtureRatio(present, mode, facts.ruleSet);
	const ratio = present.length === 0 && contaminants.length ? 0 : (mixture?.ratio ?? null);
	climb.take('substance-rule', rungs.substanceRule(present, facts));
	// What is there in traces that harm nobody asks for no filter.
	const harming = present.filter((c) => !traceOnly(c));
	const passing = harming.flatMap((c) => {
		const reason = unfilterable(c, harming, facts.ruleSet);
		return reason ? [{ c, reason }] : [];
	});
	climb.take('filter-exists', rungs.filterExists(harming, passing, facts, place));
	const least = present.flatMap((c) => leastFactorOf(c, facts.ruleSet) ?? []);
	const needed = factorNeeded(ratio, least, facts.ruleSet);
	let outcome: HazardOutcome = climb.outcome ?? climb.floor ?? 'filter';
	if (needed === undefined && OUTCOME_RANK[outcome] < OUTCOME_RANK['self-contained'])
		outcome = 'self-contained';
	const before = outcome;
	const uncaught = passing.map(({ c }) => c);
	const caught = harming.filter((c) => !uncaught.includes(c));
	const caughtRatio = filterRatio(harming, uncaught, mode, facts.ruleSet);
	const need: Omit<Need, 'outcome'> = {
		hazardRatio: ratio,
		requiredFactor: needed ?? null,
		filter: {
			contaminants: caught,
			ratio: caughtRatio,
			factor:
				factorNeeded(caughtRatio, least, facts.ruleSet) ?? (caughtRatio === null ? null : Infinity)
		},
		suit: skin.suit
	};
	const nothing = outcome === 'filter' && contaminants.length > 0 && caught.length === 0;
	const strong = nothing
		? { outcome, choice: { permitted: [], rejected: [] }, reasons: [] }
		: strengthen(outcome, harming, facts, need);
	const { choice } = strong;
	outcome = strong.outcome;
	const unfit = outcome === 'stop' ? fitWouldAllow(before, harming, facts, need) : [];
	climb.take(
		'factor',
		factorRung(mixture, needed ?? null, least, present, outcome, facts.ruleSet),
		{
			decides: !climb.outcome
		}
	);
	climb.note('fit', fit(facts, choice));
	climb.note('wear', 'burden, sight, talking and heat: advice at the choice');

	return {
		outcome,
		reasons: [
			...climb.reasons,
			...strong.reasons,
			...unfit,
			...(climb.decidedBefore('skin') ? skin.reasons : [])
		],
		hazardRatio: ratio,
		requiredFactor: needed ?? null,
		suit: skin.suit,
		rungs: climb.rungs,
		permitted: choice.permitted,
		rejected: choice.rejected,
		contaminants,
		mixture,
		conditions: conditionsOf({
			contaminants,
			present,
			filters: choice.permitted.some(({ source }) => source === 'filter'),
			facts,
			ratio,
			beyond: needed === undefined,
			outcome,
			suit: skin.suit
		}),
		changesIf: []
	};
}

/**
 * The next assigned factor for a ratio, no lower than the least by kind of harm; null where nothing asks for one,
 * undefined where none reaches that far.
 */
function factorNeeded(
	ratio: number | null,
	least: readonly LeastFactor[],
	ruleSet: HazardFacts['ruleSet']
): number | null | undefined {
	if (ratio === null && least.length === 0) return null;
	return requiredFactor(Math.max(ratio ?? 0, ...least.map(({ factor }) => factor)), ruleSet);
}

/** Collects what each rung answers and stops at the first that decides. */
class Climb {
	outcome: HazardOutcome | undefined;
	floor: HazardOutcome | undefined;
	readonly rungs: Rung[] = [];
	readonly reasons: Reason[] = [];

	take(key: RungKey, finding: Finding, how: { floorOnly?: HazardOutcome; decides?: boolean } = {}) {
		if (this.outcome) return this.rungs.push(rung(key, 'not reached', '', []));
		const floors = finding.outcome !== undefined && finding.outcome === how.floorOnly;
		if (floors) this.floor = finding.outcome;
		else this.outcome = finding.outcome;
		const answer =
			this.outcome || how.decides ? 'decides' : finding.notes || floors ? 'notes' : 'passed';
		this.reasons.push(...finding.reasons);
		return this.rungs.push(rung(key, answer, finding.text, finding.reasons));
	}

	/** Adds a rung that advises and never decides; shown unless the ladder ended before the factor. */
	note(key: RungKey, text: string) {
		const reached = this.rungs.some((r) => r.key === 'factor' && r.answer !== 'not reached');
		this.rungs.push(rung(key, reached ? 'notes' : 'not reached', reached ? text : '', []));
	}

	decidedBefore(key: RungKey): boolean {
		return this.rungs.some((r) => r.key === key && r.answer === 'not reached');
	}
}

const asNote = (finding: Finding): Finding => ({
	text: finding.text,
	reasons: finding.reasons,
	notes: finding.outcome !== undefined || finding.notes === true
});

const rung = (key: RungKey, answer: Rung['answer'], text: string, reasons: Reason[]): Rung => ({
	key,
	title: TITLES[key],
	answer,
	text,
	reasons
});

const SOURCE_OF: Partial<Record<HazardOutcome, string>> = {
	filter: 'filter',
	'supplied air': 'airline',
	'self-contained': 'self-contained'
};

/** Moves up while no kind of the present outcome is strong enough, and says why the weaker ones are not. */
function strengthen(
	outcome: HazardOutcome,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	need: Omit<Need, 'outcome'>
): { outcome: HazardOutcome; choice: KindChoice; reasons: Reason[] } {
	const ladder: HazardOutcome[] = ['filter', 'supplied air', 'self-contained'];
	const enough = (o: HazardOutcome, c: KindChoice) =>
		c.permitted.some((k) => k.source === SOURCE_OF[o]);
	const reasons: Reason[] = [];
	for (let i = ladder.indexOf(outcome); i >= 0 && i < ladder.length; i++) {
		const next = ladder[i] ?? outcome;
		const found = chooseKinds(contaminants, facts, { ...need, outcome: next });
		if (enough(next, found)) return { outcome: next, choice: found, reasons };
		reasons.push(noneLeft(next, found));
		// At or below the limit nothing has to be worn: where no filter would help, nothing stronger is asked for.
		if (next === 'filter' && need.hazardRatio !== null && need.hazardRatio <= 1)
			return { outcome: next, choice: { ...found, permitted: [] }, reasons };
	}
	const last = outcome === 'escape set' ? outcome : 'stop';
	return {
		outcome: last,
		choice: chooseKinds(contaminants, facts, { ...need, outcome: last }),
		reasons: ladder.includes(outcome) ? reasons : []
	};
}

/** Why none of the kinds of an outcome is left, each reason once. */
function noneLeft(outcome: HazardOutcome, choice: KindChoice): Reason {
	const source = SOURCE_OF[outcome];
	const own = choice.rejected.filter(({ kind }) => protectionKind(kind)?.source === source);
	const because = [...new Set(own.map(({ reason }) => reason))].join(' ');
	const what =
		outcome === 'filter'
			? 'filtering kind'
			: `kind with ${outcome === 'supplied air' ? 'an airline' : 'its own air'}`;
	return {
		rule: 'hazard.none-left',
		text: `No ${what} is left: ${because}`,
		origin: commonPractice('what is not strong enough is not offered')
	};
}

/** Where only the seal on a face is missing: what would allow to go in. */
function fitWouldAllow(
	before: HazardOutcome,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	need: Omit<Need, 'outcome'>
): Reason[] {
	if (before === 'stop' || (facts.fitTest !== 'none' && !facts.facialHair)) return [];
	const fitted = { ...facts, fitTest: 'quantitative' as const, facialHair: false };
	const { choice } = strengthen(before, contaminants, fitted, need);
	const kinds = choice.permitted.map(({ label }) => label.toLowerCase());
	if (!kinds.length) return [];
	const lacks = [
		...(facts.facialHair ? ['a clean shave at the seal'] : []),
		...(facts.fitTest === 'none' ? ['a passed fit test for its model and size'] : [])
	].join(' and ');
	return [
		{
			rule: 'hazard.fit-stop',
			text: `Every kind that is strong enough here seals on the face: nobody goes in. With ${lacks} it could be: ${kinds.join(', ')}.`,
			origin: published('29 CFR 1910.134(f) and (g)(1)')
		}
	];
}

function fit(facts: HazardFacts, choice: KindChoice): string {
	const loose = choice.permitted.find((kind) => !kind.tightFitting)?.label.toLowerCase();
	const instead = loose ? `, such as a ${loose}` : '; none is strong enough here';
	if (facts.facialHair) return `facial hair: loose-fitting only${instead}`;
	if (facts.fitTest === 'none') return `no fit test: loose-fitting only${instead}`;
	return facts.fitTest === 'qualitative'
		? 'qualitative test: a factor of 10 at most'
		: 'asked again at hand-out, by model and size';
}

/** The caution that stands beside every plan. Common practice. */
export const STANDING_CAUTION: Reason = {
	rule: 'standing-caution',
	text: "A competent person decides. Local law, the maker's instructions and licensed practice come first.",
	origin: commonPractice()
};
