import { PROTECTION_KINDS, type ProtectionKind } from '../data/protection-factors.ts';
import type { RuleSet } from '../data/substance.ts';
import { codeServes } from '../filters/stock.ts';
import { checkDay, type Day, readable } from '../plan/calendar.ts';
import type { ItemState } from '../readiness/findings.ts';
import { commonPractice, InputError, published, site } from '../verdict.ts';
import { type GateReason, stop } from './gate-reason.ts';
import { type GateWearer, ofFace, ofWearer } from './gate-wearer.ts';

/** A piece of equipment that is to be handed out, as far as the gate asks. */
export interface GateItem {
	/** Key of its kind of protection. */
	kind: string;
	model: string;
	size: string;
	state: ItemState;
	/** Everything that its model needs is on record. */
	complete: boolean;
	/** Day of its last look; null: none on record. */
	inspectedOn: Day | null;
	/** Minutes of air at the wearer's own rate, of what brings its air. */
	minutesOfAir: number | null;
	/** What is on it, of what filters. */
	filter: GateFilter | null;
}

export interface GateFilter {
	/** Marking by the scheme of the rule set. */
	code: string;
	hoursLeft: number;
	/** Both of one type and class. */
	sameTypeAndClass: boolean;
	/** Both opened on one day. */
	sameOpening: boolean;
}

export interface GateTask {
	/** Kinds that the plan permits, each with the filter that it asks for. */
	kinds: readonly { kind: string; filter?: string | undefined }[];
	requiredFactor: number;
	hours: number;
	minutesOfAir: number | null;
	approved: boolean;
	/** Last day on which the plan is in force. */
	expiresOn: Day;
	inQuestion: boolean;
}

export type GateOutcome = 'hand out' | 'with conditions' | 'do not';
/** The better answer first. */
export const OUTCOME_RANK: Readonly<Record<GateOutcome, number>> = {
	'hand out': 0,
	'with conditions': 1,
	'do not': 2
};
export interface GateVerdict {
	outcome: GateOutcome;
	/** Everything that speaks against it, all at once; what it was handed out by, where nothing does. */
	reasons: GateReason[];
}

const PLAN = site('hazard plan');

const tidy = (text: string): string =>
	text
		.trim()
		.toLowerCase()
		.replaceAll(/[\s_-]+/g, '-');

/** A kind of protection by its key or its name. @throws InputError at path, naming those that there are */
export function kindNamed(text: string, path: string): ProtectionKind {
	const asked = tidy(text);
	const found = PROTECTION_KINDS.find(({ key, label }) => key === asked || tidy(label) === asked);
	if (found) return found;
	throw new InputError(
		path,
		`“${text}” is no kind of protection. There are: ${PROTECTION_KINDS.map(({ key }) => key).join(', ')}.`
	);
}

/** Whether something may be handed out to somebody for a task on a day, with every reason at once and what puts it right. */
export function judgeHandOut(
	item: GateItem,
	wearer: GateWearer,
	task: GateTask,
	ruleSet: RuleSet,
	asOf: Day
): GateVerdict {
	checkDay(asOf, 'asOf');
	const kind = kindNamed(item.kind, 'item.kind');
	const against = [
		...ofItem(item, asOf),
		...ofTask(task, asOf),
		...ofKind(item, kind, task, ruleSet),
		...ofWearer(wearer, asOf),
		...(kind.tightFitting ? ofFace(item, kind, wearer, task, ruleSet, asOf) : [])
	];
	return cameTo(
		against,
		'Ready and complete, permitted by the plan, and the wearer is fitted, cleared and trained.',
		'A seal check before going in, each time.'
	);
}

/** Whether something that is no breathing protection by itself, such as a suit, may be handed out: it is ready and complete. */
export const judgeReady = (item: GateItem, asOf: Day): GateVerdict =>
	cameTo(
		ofItem(item, checkDay(asOf, 'asOf')),
		'Ready and complete.',
		'Looked at by whoever puts it on.'
	);

/** Whether something may be given to somebody as their own, for no one task: it is ready, and they are fitted for it. */
export function judgePersonalIssue(
	item: GateItem,
	wearer: GateWearer,
	ruleSet: RuleSet,
	asOf: Day
): GateVerdict {
	checkDay(asOf, 'asOf');
	const kind = kindNamed(item.kind, 'item.kind');
	const least = { requiredFactor: 0 };
	return cameTo(
		[
			...ofItem(item, asOf),
			...ofWearer(wearer, asOf),
			...(kind.tightFitting ? ofFace(item, kind, wearer, least, ruleSet, asOf) : [])
		],
		'Ready and complete, and the wearer is fitted, cleared and trained.',
		'For each task the plan is asked anew.'
	);
}

/** What reasons come to; where there is none, what stands for it. */
function cameTo(against: GateReason[], text: string, fix: string): GateVerdict {
	const outcome: GateOutcome = against.some(({ weight }) => weight === 'stop')
		? 'do not'
		: against.length
			? 'with conditions'
			: 'hand out';
	if (against.length) return { outcome, reasons: against };
	return {
		outcome,
		reasons: [{ rule: 'gate.clear', text, origin: commonPractice(), weight: 'condition', fix }]
	};
}

const STATE_FIX: Partial<Record<ItemState, string>> = {
	overdue: 'Inspect it, or take another that is ready.',
	held: 'Take another that is ready; this one is mended and released first.',
	'in wash': 'Take another that is ready; this one is dried, looked at and put together first.',
	'in service': 'Take another that is ready; this one is under repair.',
	issued: 'Scan it back first: it is out with somebody.',
	retired: 'Take another: this one is out of use for good.'
};

function ofItem(item: GateItem, asOf: Day): GateReason[] {
	const reasons: GateReason[] = [];
	const fix = STATE_FIX[item.state];
	if (fix)
		reasons.push(stop(`state.${item.state.replaceAll(' ', '-')}`, `It is ${item.state}.`, fix));
	if (item.state === 'due')
		reasons.push({
			rule: 'gate.state.due',
			text: 'Something of it falls due soon.',
			fix: 'Back by its last day.',
			origin: commonPractice(),
			weight: 'condition'
		});
	if (!item.complete)
		reasons.push(
			stop(
				'incomplete',
				'Something that it needs is not on record: filters, cylinder or mask.',
				'Fit what is missing and scan it on, or take another.',
				commonPractice('ready means complete')
			)
		);
	const before = published('29 CFR 1910.134(h)(3)(i)(A), before each use');
	if (item.inspectedOn === null)
		reasons.push(
			stop('never-inspected', 'No inspection of it is on record.', 'Inspect it first.', before)
		);
	else if (checkDay(item.inspectedOn, 'item.inspectedOn') > asOf)
		reasons.push(
			stop(
				'inspected-later',
				`Its inspection is dated ${readable(item.inspectedOn)}, a day to come.`,
				'Set the day right, or inspect it now.',
				before
			)
		);
	return reasons;
}

function ofTask(task: GateTask, asOf: Day): GateReason[] {
	const reasons: GateReason[] = [];
	if (!task.approved)
		reasons.push(
			stop(
				'plan.draft',
				'The plan of this task is not approved.',
				'Have it approved by a supervisor.',
				PLAN
			)
		);
	if (checkDay(task.expiresOn, 'task.expiresOn') < asOf)
		reasons.push(
			stop(
				'plan.expired',
				`The plan expired on ${readable(task.expiresOn)}.`,
				'Review the plan and approve it anew.',
				PLAN
			)
		);
	if (task.inQuestion)
		reasons.push(
			stop(
				'plan.in-question',
				'The plan is in question: something was reported against it.',
				'Look into the report, then clear it.',
				PLAN
			)
		);
	return reasons;
}

/** What the plan asks of this kind of protection: that it is permitted, its filter, its air. */
function ofKind(
	item: GateItem,
	kind: ProtectionKind,
	task: GateTask,
	ruleSet: RuleSet
): GateReason[] {
	const reasons: GateReason[] = [];
	const permitted = task.kinds.find(
		(one, i) => kindNamed(one.kind, `task.kinds[${i}].kind`).key === kind.key
	);
	if (!permitted)
		reasons.push(
			stop(
				'kind',
				`The plan does not permit this kind: ${kind.label.toLowerCase()}.`,
				task.kinds.length
					? `Take one of: ${task.kinds.map((one) => kindNamed(one.kind, 'task.kinds').label.toLowerCase()).join(', ')}.`
					: 'Nothing is permitted: the task is not done as it is planned.',
				PLAN
			)
		);
	if (permitted?.filter) reasons.push(...ofFilter(item.filter, permitted.filter, task, ruleSet));
	const need = task.minutesOfAir;
	if (need !== null && kind.source === 'self-contained')
		if (item.minutesOfAir === null)
			reasons.push(
				stop('air.unknown', 'How long its air lasts is not known.', 'Read its gauge and note it.')
			);
		else if (item.minutesOfAir < need)
			reasons.push(
				stop(
					'air',
					`Air for ${Math.floor(item.minutesOfAir)} min, ${need} min are planned.`,
					'Take a fuller set, or plan a shorter task.',
					commonPractice('at the pessimistic rate of the wearer'),
					{
						limit: need,
						value: item.minutesOfAir,
						unit: 'min',
						margin: item.minutesOfAir - need
					}
				)
			);
	return reasons;
}

function ofFilter(
	filter: GateFilter | null,
	wanted: string,
	task: GateTask,
	ruleSet: RuleSet
): GateReason[] {
	if (!filter)
		return [
			stop(
				'filter.none',
				`No filter is on it; ${wanted} is needed.`,
				'Open a pair for this task.',
				PLAN
			)
		];
	const reasons: GateReason[] = [];
	for (const text of codeServes(filter.code, wanted, ruleSet))
		reasons.push(stop('filter.type', text, `Open a pair of ${wanted} for this task.`, PLAN));
	if (!filter.sameTypeAndClass)
		reasons.push(
			stop(
				'filter.mixed',
				'The two filters are not of one type and class.',
				'Take both off and open a pair.'
			)
		);
	if (!filter.sameOpening)
		reasons.push(
			stop(
				'filter.opened-apart',
				'The two filters were not opened together.',
				'Take both off and open a pair.'
			)
		);
	if (filter.hoursLeft < task.hours)
		reasons.push(
			stop(
				'filter.hours',
				`${Number(filter.hoursLeft.toFixed(1))} h are left of the filters, ${task.hours} h are planned.`,
				'Open a new pair.',
				commonPractice('the ledger of the pair'),
				{
					limit: task.hours,
					value: filter.hoursLeft,
					unit: 'h',
					margin: filter.hoursLeft - task.hours
				}
			)
		);
	return reasons;
}
