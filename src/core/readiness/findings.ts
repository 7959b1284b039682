import { cylinderDates, freshUntil } from '../air/cylinder.ts';
import { HELD_BY_AIR } from '../air/source.ts';
import { BLOCK_OF, WHERE_WORDS } from '../custody/custody.ts';
import { holds } from '../data/reject-codes.ts';
import { groupBy } from '../group-by.ts';
import type { RuleSet } from '../data/substance.ts';
import { plusDays, readable, type Day } from '../plan/calendar.ts';
import { type Due, judgeDue, type DueRule } from '../plan/due.ts';
import { countSince } from '../plan/events.ts';
import { asDueRule, type RuleWhat, whatWords } from '../plan/rules.ts';
import { SHIPPED_RULES } from '../plan/shipped-rules.ts';
import { commonPractice, maker, type Origin, type Reason } from '../verdict.ts';
import { type Block, BLOCKS } from './block.ts';
import { type CylinderKnown, doneKey, type ItemFacts } from './facts.ts';

/** What can fall due about an item. */
export const DUE_WHATS = [
	'inspection',
	'filters',
	'cylinder test',
	'fresh air',
	'part',
	'bench test',
	'list',
	'service'
] as const;
export type DueWhat = (typeof DUE_WHATS)[number];

/** Something that is to be done about an item by a day. */
export interface ItemDue {
	what: DueWhat;
	/** Which list or job, where there is more than one of its kind. */
	detail?: string;
	/** Tag of the part that it is about, where it is one of a set. */
	part?: string;
	/** How far it is where it goes by what is counted or what happened, in words. */
	left?: string;
	/** First day on which it counts as due. */
	from: Day;
	/** Last day of use. */
	on: Day;
}

/**
 * One thing that is known about an item and what follows from it. State, dues, reasons and work all derive from the
 * list of these.
 */
export interface Finding {
	reason: Reason;
	/** It keeps the item out of use. */
	holds?: Block;
	due?: ItemDue;
	/** It makes the item looked at sooner. */
	watches?: boolean;
	/** Nothing to say of it as it stands: it only counts. */
	silent?: boolean;
}

/** Day that stands for "never": overdue on every day. */
export const NEVER: Day = '1970-01-01';
/** Day that stands for "by what is counted, not by the calendar": due on no day. */
export const FAR: Day = '9999-12-31';
/** Days before the end at which a job counts as due. Site default. */
const WINDOW_DAYS = 7;
const FILTER_WINDOW_DAYS = 2;
const TEST_WINDOW_DAYS = 30;
/** Interval of an item that is watched. Common practice: about half. */
const WATCH_DAYS = 14;

/** Everything that is known about an item on a day, what holds it first. A set is as ready as its worst part. */
export function findingsOf(facts: ItemFacts, ruleSet: RuleSet, asOf: Day): Finding[] {
	return [
		...against(facts),
		...ofParts(facts, ruleSet, asOf),
		...standing(facts),
		...ofRules(facts, ruleSet, asOf),
		...(facts.cylinder ? ofCylinder(facts.cylinder, ruleSet) : []),
		...ofFilters(facts)
	];
}

const found = (
	rule: string,
	text: string,
	rest: Omit<Finding, 'reason'> = {},
	origin: Origin = commonPractice()
): Finding => ({ reason: { rule: `item.${rule}`, text, origin }, ...rest });

function against(facts: ItemFacts): Finding[] {
	const findings: Finding[] = [];
	if (facts.retiredOn)
		findings.push(
			found('retired', `Taken out of use on ${readable(facts.retiredOn)}.`, { holds: 'retired' })
		);
	// On the wash line its filters are off, as they should be.
	const inWash = facts.custody && BLOCK_OF[facts.custody.where] === 'in wash';
	for (const text of facts.lacks ?? [])
		findings.push(
			found(
				'incomplete',
				text,
				inWash ? {} : { holds: 'held' },
				commonPractice('ready means complete')
			)
		);
	for (const { severity, code, station } of facts.openDefects) {
		const stops = holds(severity);
		findings.push(
			found(
				`defect.${severity}`,
				`${code} at ${station}, ${stops ? 'not usable until released' : 'usable, looked at sooner'}.`,
				stops ? { holds: 'held' } : { watches: severity === 'watch' }
			)
		);
	}
	if (facts.withdrawn)
		findings.push(
			found(
				'model-withdrawn',
				`Its model was withdrawn on ${readable(facts.withdrawn.on)}: ${facts.withdrawn.why}`,
				{ holds: 'held' },
				maker('notice of the maker')
			)
		);
	return findings;
}

function standing(facts: ItemFacts): Finding[] {
	return [
		...(facts.filtersRecalled
			? [
					found('filters-recalled', 'The lot of its filters was recalled: change them.', {
						holds: 'held'
					})
				]
			: []),
		...(facts.inService
			? [found('in-service', 'A repair is under way.', { holds: 'in service' })]
			: []),
		...(facts.cylinder ? againstCylinder(facts.cylinder) : []),
		...ofCustody(facts),
		...ofSeal(facts),
		...(facts.watched ?? []).map((reason): Finding => ({ reason, watches: true }))
	];
}

/** That it is not on its shelf. */
function ofCustody({ custody }: ItemFacts): Finding[] {
	if (!custody) return [];
	const holds = BLOCK_OF[custody.where];
	if (!holds) return [];
	const who = custody.with ? `: ${custody.with}` : '';
	return [
		found(
			`at.${custody.where.replaceAll(' ', '-')}`,
			`It is ${WHERE_WORDS[custody.where]}${who}.`,
			{
				holds
			}
		)
	];
}

/** That the cupboard of an emergency item was opened, and what follows. */
function ofSeal({ seal }: ItemFacts): Finding[] {
	if (!seal?.broken) return [];
	const { on, why, lookedSince } = seal.broken;
	return [
		found(
			'seal-broken',
			`Its seal ${seal.number} was broken on ${readable(on)} (${why}): ${lookedSince ? 'it was looked over since, seal it anew.' : 'look it over, then seal it.'}`,
			{ watches: true },
			SEALED
		)
	];
}
const SEALED = commonPractice(
	'an emergency set lies sealed, and is looked over once it was opened'
);

/** An emergency item that was opened is looked over before it counts again. */
const OPENED: DueRule = {
	name: 'Inspection, because its seal was broken',
	every: { days: 0 },
	origin: SEALED
};

/** What holds a cylinder besides its faults. */
function againstCylinder(known: CylinderKnown): Finding[] {
	const findings: Finding[] = [];
	if (known.airFailed)
		findings.push(
			found(
				'air-failed',
				`The air in it, from ${known.airFailed.source}, failed its test on ${readable(known.airFailed.on)}: let it down and fill it anew.`,
				{ holds: 'held' },
				HELD_BY_AIR
			)
		);
	if (known.testFailed)
		findings.push(found('cylinder-test-failed', 'It failed its periodic test.', { holds: 'held' }));
	if (known.pressureBar === null)
		findings.push(
			found('content-unknown', 'What is left in it is not known: read its gauge and note it.', {
				holds: 'held'
			})
		);
	return findings;
}

/** What each part does to the set: it holds or falls due with it. */
function ofParts(facts: ItemFacts, ruleSet: RuleSet, asOf: Day): Finding[] {
	return (facts.parts ?? []).map(({ tag, facts: part }): Finding => {
		const findings = findingsOf(part, ruleSet, asOf);
		const { state, first, from } = summary(findings, asOf);
		const blocked = findings.some((f) => f.holds);
		return {
			...found(
				`part.${state.replaceAll(' ', '-')}`,
				`${tag} in it is ${state}: ${findings.find((f) => !f.silent)?.reason.text ?? ''}`
			),
			...(blocked ? { holds: 'held' } : {}),
			due: { what: 'part', part: tag, from, on: first.on },
			silent: state === 'ready'
		};
	});
}

/** While an item is watched it is inspected sooner. */
const WATCHED: DueRule = {
	name: 'Inspection, sooner because it is watched',
	every: { days: WATCH_DAYS },
	window: WINDOW_DAYS,
	origin: commonPractice('about half the interval')
};

const NEVER_INSPECTED: Finding = {
	reason: { rule: 'due.never', text: 'Never done.', origin: commonPractice() },
	due: { what: 'inspection', from: NEVER, on: NEVER }
};

/** What the rules of intervals ask for: of everything the earliest wins, and each rule is said. */
function ofRules(facts: ItemFacts, ruleSet: RuleSet, asOf: Day): Finding[] {
	const rules = facts.rules ?? SHIPPED_RULES[ruleSet];
	const watched = facts.watched?.length || facts.openDefects.some((d) => d.severity === 'watch');
	const asked = groupBy(rules, ({ what, detail }) => doneKey(what, detail));
	return [...asked].flatMap(([key, group]) => {
		const [{ what, detail } = { what: 'inspection', detail: '' } as const] = group;
		const looked = what === 'inspection';
		// What was never looked at is not ready, whatever its rules wait for.
		if (looked && facts.lastInspectionOn === null) return [NEVER_INSPECTED];
		const own = group.map(asDueRule);
		if (watched && looked) own.unshift(WATCHED);
		if (looked && facts.seal?.broken && !facts.seal.broken.lookedSince) own.unshift(OPENED);
		const due = judgeDue({ rules: own, ...sinceDone(facts, what, key), asOf });
		const said = looked ? due.reasons : due.reasons.map((reason) => named(reason, what, detail));
		return said.map((reason, i): Finding =>
			i === 0
				? {
						reason,
						due: { what, ...(detail ? { detail } : {}), ...daysOf(due) }
					}
				: { reason }
		);
	});
}

/** When it was last done and what came together since. */
function sinceDone(facts: ItemFacts, what: RuleWhat, key: string) {
	const done = facts.done?.[key];
	const last: Record<RuleWhat, Day | null> = {
		inspection: facts.lastInspectionOn,
		'bench test': facts.lastBenchTestOn ?? null,
		// The parts of an item came new with it, and its first deep look is a whole interval away.
		list: done?.on ?? facts.inUseSince ?? null,
		service: done?.on ?? facts.inUseSince ?? null
	};
	const { uses, hours, cycles, happened } = countSince(facts.events ?? [], done?.at ?? null);
	return { last: last[what], usesSince: uses, hoursSince: hours, cyclesSince: cycles, happened };
}

/** From when and until when by the calendar, and by what is counted: that is due now, over, or on no day. */
function daysOf({ dueFrom, dueOn, counted }: Due): Pick<ItemDue, 'from' | 'on' | 'left'> {
	if (!counted) return { from: dueFrom ?? NEVER, on: dueOn ?? NEVER };
	const left = { left: counted.words };
	if (counted.state === 'overdue') return { from: NEVER, on: NEVER, ...left };
	if (counted.state === 'due') return { from: NEVER, on: dueOn ?? FAR, ...left };
	return { from: dueFrom ?? FAR, on: dueOn ?? FAR, ...(dueOn ? {} : left) };
}

/** “Never done” says of what. */
const named = (reason: Reason, what: RuleWhat, detail: string): Reason =>
	reason.rule === 'due.never'
		? { ...reason, text: `${whatWords(what, detail)}: never done here.` }
		: reason;

function ofCylinder(known: CylinderKnown, ruleSet: RuleSet): Finding[] {
	const { lastDay, reasons } = cylinderDates(known, known.lastTestOn, ruleSet);
	const due = {
		what: 'cylinder test',
		from: plusDays(lastDay, -TEST_WINDOW_DAYS),
		on: lastDay
	} as const;
	const fresh = freshUntil(known.filledOn);
	return [
		...reasons.map((reason, i): Finding => (i === 0 ? { reason, due } : { reason })),
		...(fresh
			? [
					found(
						'fresh-air',
						`Fresh air in it by ${readable(fresh)}.`,
						{ due: { what: 'fresh air', from: plusDays(fresh, -TEST_WINDOW_DAYS), on: fresh } },
						commonPractice('fresh air in stored cylinders yearly')
					)
				]
			: [])
	];
}

const ofFilters = ({ filterChangeOn: on }: ItemFacts): Finding[] =>
	on
		? [
				found('filters', `Filters: last day ${readable(on)}.`, {
					due: { what: 'filters', from: plusDays(on, -FILTER_WINDOW_DAYS), on }
				})
			]
		: [];

export type ItemState =
	'ready' | 'due' | 'overdue' | 'held' | 'in wash' | 'in service' | 'issued' | 'retired';

/** Every due of an item, in no order. */
export const duesOf = (findings: readonly Finding[]): ItemDue[] =>
	findings.flatMap((finding) => finding.due ?? []);

/** What findings come to: what blocks the item, what falls due first, and the state on a day. */
export function summary(findings: readonly Finding[], asOf: Day) {
	const dues = duesOf(findings);
	const nothing: ItemDue = { what: 'inspection', from: NEVER, on: NEVER };
	const first = dues.reduce((a, b) => (b.on < a.on ? b : a), dues[0] ?? nothing);
	const from = dues.reduce((day, due) => (due.from < day ? due.from : day), first.from);
	const blocked = BLOCKS.find((block) => findings.some((f) => f.holds === block)) ?? null;
	return {
		blocked,
		first,
		from,
		state: stateOn({ blocked, dueFrom: from, dueOn: first.on }, asOf)
	};
}

/** The state on a day by what is kept of it. */
export function stateOn(
	kept: { blocked: Block | null; dueFrom: Day; dueOn: Day },
	asOf: Day
): ItemState {
	if (kept.blocked) return kept.blocked;
	if (asOf > kept.dueOn) return 'overdue';
	return asOf >= kept.dueFrom ? 'due' : 'ready';
}
