import { cylinderDates, freshUntil, type CylinderData } from '../air/cylinder.ts';
import { HELD_BY_AIR } from '../air/source.ts';
import { holds, type Severity } from '../data/reject-codes.ts';
import type { RuleSet } from '../data/substance.ts';
import { plusDays, readable, type Day } from '../plan/calendar.ts';
import { judgeDue, type DueRule } from '../plan/due.ts';
import { commonPractice, maker, published, type Reason, type Verdict } from '../verdict.ts';

export type ItemState =
	'ready' | 'due' | 'overdue' | 'held' | 'in wash' | 'in service' | 'issued' | 'retired';

/** What is known of an item; its state follows from this and from nothing else. */
export interface ItemFacts {
	retiredOn: Day | null;
	openDefects: readonly { severity: Severity; code: string; station: string }[];
	/** A repair is under way. */
	inService: boolean;
	/** Day of the last signed inspection that it passed. */
	lastInspectionOn: Day | null;
	/** What makes it looked at sooner though nothing is wrong: a drift, a test passed within its uncertainty. */
	watched?: readonly Reason[];
	/** Change date of the pair of filters on it. */
	filterChangeOn: Day | null;
	/** The lot of the filters on it was recalled. */
	filtersRecalled?: boolean;
	/** Its maker took the model from the market. */
	withdrawn?: { on: Day; why: string } | null;
	/** What is known of a cylinder beyond what was looked at. */
	cylinder?: CylinderKnown | null;
	/** What a set is put together from, each with its own facts. */
	parts?: readonly { tag: string; facts: ItemFacts }[];
}

/** What the state of a cylinder follows from besides its inspections. */
export interface CylinderKnown extends Pick<
	CylinderData,
	'material' | 'manufacturedOn' | 'lifeEndsOn' | 'testYears'
> {
	/** Day of the last periodic test that it passed; null: none since it was made. */
	lastTestOn: Day | null;
	/** Day of its last fill; null: none on record. */
	filledOn: Day | null;
	/** It failed its last periodic test. */
	testFailed: boolean;
	/** What was last read on it; null: nobody knows what is left in it. */
	pressureBar: number | null;
	/** The air in it failed a test that was taken after it was filled. */
	airFailed: { source: string; on: Day } | null;
}

/** The part of the state that does not move with the calendar, and the days at which it does. */
export interface StateCache {
	blocked: 'held' | 'in service' | 'retired' | null;
	dueFrom: Day;
	/** Last day of use. */
	dueOn: Day;
	/** What falls due first. */
	dueWhat: DueWhat;
	/** Why it is watched, where it is. */
	watchedFor: string | null;
}

export type DueWhat = 'inspection' | 'filters' | 'cylinder test' | 'fresh air' | 'part';

/** Day that stands for "never": overdue on every day. */
export const NEVER: Day = '1970-01-01';
/** Days before the end at which a job counts as due. Site default. */
const WINDOW_DAYS = 7;
const FILTER_WINDOW_DAYS = 2;
const TEST_WINDOW_DAYS = 30;
/** Interval of an item that is watched. Common practice: about half. */
const WATCH_DAYS = 14;

/** How often a mask in use is thoroughly inspected under a rule set. */
export function inspectionRule(ruleSet: RuleSet): DueRule {
	return {
		name: 'Inspection',
		every: { months: 1 },
		window: WINDOW_DAYS,
		origin:
			ruleSet === 'uk'
				? published('HSG53 and COSHH regulation 9, thorough examination monthly')
				: commonPractice('fact of the trade: monthly by the responsible person')
	};
}

/** Gathers the facts into what can be stored and asked for in bulk. A set is as ready as its worst part. */
export function stateCache(facts: ItemFacts, ruleSet: RuleSet): StateCache {
	return (facts.parts ?? []).reduce(
		(whole, { facts: part }): StateCache => {
			const own = stateCache(part, ruleSet);
			return {
				...whole,
				blocked: whole.blocked ?? (own.blocked ? 'held' : null),
				dueFrom: own.dueFrom < whole.dueFrom ? own.dueFrom : whole.dueFrom,
				...(own.dueOn < whole.dueOn ? { dueOn: own.dueOn, dueWhat: 'part' } : {})
			};
		},
		ownState(facts, ruleSet)
	);
}

/** The rule that holds for an item: sooner while it is watched. */
function ruleFor(facts: ItemFacts, ruleSet: RuleSet): DueRule {
	const watched = facts.watched?.length || facts.openDefects.some((d) => d.severity === 'watch');
	return watched
		? {
				...inspectionRule(ruleSet),
				name: 'Inspection, sooner because it is watched',
				every: { days: WATCH_DAYS },
				origin: commonPractice('about half the interval')
			}
		: inspectionRule(ruleSet);
}

function ownState(facts: ItemFacts, ruleSet: RuleSet): StateCache {
	const due = judgeDue({
		rules: [ruleFor(facts, ruleSet)],
		last: facts.lastInspectionOn,
		asOf: NEVER
	});
	const dues: { from: Day; on: Day; what: DueWhat }[] = [
		{ from: due.dueFrom ?? NEVER, on: due.dueOn ?? NEVER, what: 'inspection' }
	];
	const { filterChangeOn, cylinder } = facts;
	if (filterChangeOn)
		dues.push({
			from: plusDays(filterChangeOn, -FILTER_WINDOW_DAYS),
			on: filterChangeOn,
			what: 'filters'
		});
	if (cylinder) {
		const { lastDay } = cylinderDates(cylinder, cylinder.lastTestOn, ruleSet);
		dues.push({ from: plusDays(lastDay, -TEST_WINDOW_DAYS), on: lastDay, what: 'cylinder test' });
		const fresh = freshUntil(cylinder.filledOn);
		if (fresh)
			dues.push({ from: plusDays(fresh, -TEST_WINDOW_DAYS), on: fresh, what: 'fresh air' });
	}
	const first = dues.reduce((a, b) => (b.on < a.on ? b : a));
	return {
		blocked: facts.retiredOn
			? 'retired'
			: facts.inService
				? 'in service'
				: facts.withdrawn ||
					  facts.filtersRecalled ||
					  (cylinder && againstCylinder(cylinder).length > 0) ||
					  facts.openDefects.some((d) => holds(d.severity))
					? 'held'
					: null,
		dueFrom: dues.map((d) => d.from).sort()[0] ?? NEVER,
		dueOn: first.on,
		dueWhat: first.what,
		watchedFor: facts.watched?.[0]?.text ?? null
	};
}

/** What holds a cylinder besides its faults. */
function againstCylinder(known: CylinderKnown): Reason[] {
	const reasons: Reason[] = [];
	if (known.airFailed)
		reasons.push({
			rule: 'item.air-failed',
			text: `The air in it, from ${known.airFailed.source}, failed its test on ${readable(known.airFailed.on)}: let it down and fill it anew.`,
			origin: HELD_BY_AIR
		});
	if (known.testFailed)
		reasons.push({
			rule: 'item.cylinder-test-failed',
			text: 'It failed its periodic test.',
			origin: commonPractice()
		});
	if (known.pressureBar === null)
		reasons.push({
			rule: 'item.content-unknown',
			text: 'What is left in it is not known: read its gauge and note it.',
			origin: commonPractice()
		});
	return reasons;
}

/** The state on a day. */
export function stateOn(cache: StateCache, asOf: Day): ItemState {
	if (cache.blocked) return cache.blocked;
	if (asOf > cache.dueOn) return 'overdue';
	return asOf >= cache.dueFrom ? 'due' : 'ready';
}

/** The state of an item on a day, with every reason. */
export function judgeItem(facts: ItemFacts, ruleSet: RuleSet, asOf: Day): Verdict<ItemState> {
	const cache = stateCache(facts, ruleSet);
	const reasons: Reason[] = [];
	if (facts.retiredOn)
		reasons.push({
			rule: 'item.retired',
			text: `Taken out of use on ${readable(facts.retiredOn)}.`,
			origin: commonPractice()
		});
	for (const defect of facts.openDefects)
		reasons.push({
			rule: `item.defect.${defect.severity}`,
			text: `${defect.code} at ${defect.station}, ${holds(defect.severity) ? 'not usable until released' : 'usable, looked at sooner'}.`,
			origin: commonPractice()
		});
	if (facts.withdrawn)
		reasons.push({
			rule: 'item.model-withdrawn',
			text: `Its model was withdrawn on ${readable(facts.withdrawn.on)}: ${facts.withdrawn.why}`,
			origin: maker('notice of the maker')
		});
	for (const { tag, facts: part } of facts.parts ?? []) {
		const state = judgeItem(part, ruleSet, asOf);
		if (state.outcome !== 'ready')
			reasons.push({
				rule: `item.part.${state.outcome.replaceAll(' ', '-')}`,
				text: `${tag} in it is ${state.outcome}: ${state.reasons[0]?.text ?? ''}`,
				origin: commonPractice()
			});
	}
	if (facts.filtersRecalled)
		reasons.push({
			rule: 'item.filters-recalled',
			text: 'The lot of its filters was recalled: change them.',
			origin: commonPractice()
		});
	if (facts.inService)
		reasons.push({
			rule: 'item.in-service',
			text: 'A repair is under way.',
			origin: commonPractice()
		});
	reasons.push(
		...(facts.cylinder ? againstCylinder(facts.cylinder) : []),
		...(facts.watched ?? []),
		...judgeDue({ rules: [ruleFor(facts, ruleSet)], last: facts.lastInspectionOn, asOf }).reasons
	);
	if (facts.cylinder) {
		reasons.push(...cylinderDates(facts.cylinder, facts.cylinder.lastTestOn, ruleSet).reasons);
		const fresh = freshUntil(facts.cylinder.filledOn);
		if (fresh)
			reasons.push({
				rule: 'item.fresh-air',
				text: `Fresh air in it by ${readable(fresh)}.`,
				origin: commonPractice('fresh air in stored cylinders yearly')
			});
	}
	if (facts.filterChangeOn)
		reasons.push({
			rule: 'item.filters',
			text: `Filters: last day ${readable(facts.filterChangeOn)}.`,
			origin: commonPractice()
		});
	return { outcome: stateOn(cache, asOf), reasons };
}
