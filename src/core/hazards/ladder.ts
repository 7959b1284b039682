import { SHIPPED, type SubstanceLibrary } from '../data/substances.ts';
import { requiredFactor } from '../protection/factor.ts';
import { readableNumber } from '../units/number.ts';
import { commonPractice, published, type Reason } from '../verdict.ts';
import {
	OUTCOME_RANK,
	type HazardDecision,
	type HazardOutcome,
	type Rung,
	type RungKey
} from './decision.ts';
import type { Contaminant, HazardFacts } from './facts.ts';
import { mixtureRatio } from './mixture.ts';
import { resolveContaminant } from './resolve.ts';
import { chooseKinds, type KindChoice } from './kinds.ts';
import { factorRung } from './factor-rung.ts';
import { immediateDanger } from './danger-rung.ts';
import type { Finding } from './finding.ts';
import { oxygenRung } from './oxygen-rung.ts';
import * as rungs from './rungs.ts';
import { traceOnly } from './traces.ts';

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

/** Published: EN 689:2018, 5.5.3, least number for the statistical test; from memory. */
const MANY_MEASUREMENTS = 6;

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
	const climb = new Climb();
	const skin = rungs.skin(contaminants);
	const known = rungs.known(contaminants);
	const oxygen = oxygenRung(facts, contaminants);
	const dangers = [oxygen, immediateDanger(contaminants, facts), rungs.fire(facts)] as const;
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
	climb.take('substance-rule', rungs.substanceRule(contaminants, facts));
	climb.take('filter-exists', rungs.filterExists(contaminants, facts));

	const mixture = mixtureRatio(contaminants, facts.mixture ?? 'all');
	const ratio = mixture?.ratio ?? null;
	const required = ratio === null ? null : (requiredFactor(ratio, facts.ruleSet) ?? null);
	let outcome: HazardOutcome = climb.outcome ?? climb.floor ?? 'filter';
	if (required === null && ratio !== null && OUTCOME_RANK[outcome] < OUTCOME_RANK['self-contained'])
		outcome = 'self-contained';
	const before = outcome;
	// What is there in traces that harm nobody asks for no filter.
	const harming = contaminants.filter((c) => !traceOnly(c));
	const strong =
		harming.length || contaminants.length === 0
			? strengthen(outcome, harming, facts, ratio, required)
			: { outcome, choice: { permitted: [], rejected: [] } };
	const { choice } = strong;
	outcome = strong.outcome;
	const unfit = outcome === 'stop' ? fitWouldAllow(before, harming, facts, ratio, required) : [];
	climb.take('factor', factorRung(mixture, required, contaminants, outcome, facts.ruleSet), {
		decides: !climb.outcome
	});
	climb.note('fit', fit(facts, choice));
	climb.note('wear', 'burden, sight, talking and heat: advice at the choice');

	return {
		outcome,
		reasons: [...climb.reasons, ...unfit, ...(climb.decidedBefore('skin') ? skin.reasons : [])],
		hazardRatio: ratio,
		requiredFactor: required,
		suit: skin.suit,
		rungs: climb.rungs,
		permitted: choice.permitted,
		rejected: choice.rejected,
		contaminants,
		mixture,
		conditions: conditionsOf(contaminants, facts, ratio, required),
		changesIf: []
	};
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

/** Moves up while no kind of the present outcome is strong enough. */
function strengthen(
	outcome: HazardOutcome,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	ratio: number | null,
	required: number | null
): { outcome: HazardOutcome; choice: KindChoice } {
	const ladder: HazardOutcome[] = ['filter', 'supplied air', 'self-contained'];
	const enough = (o: HazardOutcome, c: KindChoice) =>
		c.permitted.some((k) => k.source === SOURCE_OF[o]);
	for (let i = ladder.indexOf(outcome); i >= 0 && i < ladder.length; i++) {
		const next = ladder[i] ?? outcome;
		const found = chooseKinds(contaminants, facts, {
			outcome: next,
			hazardRatio: ratio,
			requiredFactor: required
		});
		if (enough(next, found)) return { outcome: next, choice: found };
	}
	const last = outcome === 'escape set' ? outcome : 'stop';
	return {
		outcome: last,
		choice: chooseKinds(contaminants, facts, {
			outcome: last,
			hazardRatio: ratio,
			requiredFactor: required
		})
	};
}

/** Where only the seal on a face is missing: what would allow to go in. */
function fitWouldAllow(
	before: HazardOutcome,
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	ratio: number | null,
	required: number | null
): Reason[] {
	if (before === 'stop' || (facts.fitTest !== 'none' && !facts.facialHair)) return [];
	const fitted = { ...facts, fitTest: 'quantitative' as const, facialHair: false };
	const { choice } = strengthen(before, contaminants, fitted, ratio, required);
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

function conditionsOf(
	contaminants: readonly Contaminant[],
	facts: HazardFacts,
	ratio: number | null,
	required: number | null
): string[] {
	const list: string[] = [];
	if (ratio !== null && required === null)
		list.push(
			`No assigned factor of the rule set reaches ${short(ratio)}: bring the concentration down before anyone goes in.`
		);
	if (ratio !== null && ratio <= 1)
		list.push(
			'At or below the limit: the limit itself calls for no protection. What follows holds if it is worn all the same.'
		);
	if (contaminants.length && contaminants.every(traceOnly))
		list.push(
			'Nothing to protect from as entered: what is there only takes the place of air, and leaves enough. It was measured, and can change.'
		);
	if (facts.confinedSpace) {
		list.push(
			'Confined space: an attendant stays outside in contact, and an escape set or a way to be pulled out is at hand; oxygen is measured before and all the time.'
		);
		if (facts.lelReadingPercent === null || facts.lelReadingPercent === undefined)
			list.push(
				'Confined space: flammable gas is measured before anyone goes in; nothing is entered.'
			);
	}
	for (const c of contaminants)
		if (c.summary && c.summary.n < MANY_MEASUREMENTS)
			list.push(
				`${c.name}: ${c.summary.n} measurements are few; EN 689 asks for ${MANY_MEASUREMENTS} before the spread is trusted.`
			);
	for (const c of contaminants) if (c.substance?.note) list.push(`${c.name}: ${c.substance.note}`);
	for (const c of contaminants)
		if (!c.substance && c.gas)
			list.push(
				`${c.name} is not in the library: its change schedule comes from the filter's maker.`
			);
	return list;
}

const short = (value: number) => readableNumber(value, 3);

/** The caution that stands beside every plan. Common practice. */
export const STANDING_CAUTION: Reason = {
	rule: 'standing-caution',
	text: "A competent person decides. Local law, the maker's instructions and licensed practice come first.",
	origin: commonPractice()
};
