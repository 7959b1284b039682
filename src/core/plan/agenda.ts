import type { Severity } from '../data/reject-codes.ts';
import { type DueWhat, FAR, NEVER } from '../readiness/findings.ts';
import { type Day, readable } from './calendar.ts';
import { type RuleWhat, whatWords } from './rules.ts';

/** What one line of the shift sheet is about. */
export type AgendaKind =
	| 'inside'
	| 'flag'
	| 'air'
	| 'not-back'
	| 'cluster'
	| 'held'
	| 'release'
	| 'filters-over'
	| 'overdue'
	| 'person-over'
	| 'dirty'
	| 'running'
	| 'filters-due'
	| 'due'
	| 'person-due'
	| 'watch';

export interface AgendaEntry {
	kind: AgendaKind;
	tag: string;
	/** Where it can cost most, the place that falls below its floor counts first. */
	belowFloor?: boolean;
	severity?: Severity;
	on: Day;
	/** The day that the plan in force has it on; left out: it is in no plan. */
	planned?: Day;
}

/** Kinds in order of consequence: what someone might breathe through first. Common practice. */
const CONSEQUENCE: readonly AgendaKind[] = [
	'inside',
	'flag',
	'air',
	'not-back',
	'cluster',
	'filters-over',
	'held',
	'release',
	'overdue',
	'person-over',
	'dirty',
	'running',
	'filters-due',
	'due',
	'person-due',
	'watch'
];

/** Sorts the shift sheet: by consequence, then places short of ready equipment, then the day of the plan or the last day, then tag. */
export function byConsequence(a: AgendaEntry, b: AgendaEntry): number {
	return (
		CONSEQUENCE.indexOf(a.kind) - CONSEQUENCE.indexOf(b.kind) ||
		Number(b.belowFloor ?? false) - Number(a.belowFloor ?? false) ||
		Number(b.severity === 'stop') - Number(a.severity === 'stop') ||
		// What is due is done in the order of the plan, where there is one.
		(a.planned ?? a.on).localeCompare(b.planned ?? b.on) ||
		a.tag.localeCompare(b.tag)
	);
}

/** What is to be done about an item that falls due. */
const DUE_WORDS: Record<Exclude<DueWhat, RuleWhat>, string> = {
	filters: 'Change the filters',
	'cylinder test': 'Periodic test of the cylinder',
	'fresh air': 'Fresh air in the cylinder',
	part: 'Inspection of a part in it'
};

/** What is to be done about an item, in words. */
export const dueWords = (what: DueWhat, detail: string): string =>
	what in DUE_WORDS
		? DUE_WORDS[what as keyof typeof DUE_WORDS]
		: whatWords(what as RuleWhat, detail);

/** By when, in words: the last day, or how far it is where it goes by what is counted or what happened. */
export function lastDayWords(due: { on: Day; left?: string | undefined }, asOf: Day): string {
	if (due.on === NEVER) return due.left || 'never done here';
	if (due.on === FAR) return due.left ?? '';
	return `last day ${due.on < asOf ? 'was ' : ''}${readable(due.on)}`;
}

/** Minutes at the bench per job that falls due, where it is not the usual. Common practice. */
const DUE_MINUTES: Partial<Record<DueWhat, number>> = { 'bench test': 15, service: 20 };
export const dueMinutes = (what: DueWhat): number => DUE_MINUTES[what] ?? BENCH_MINUTES.due;

/** Minutes at the bench per line. Common practice. */
export const BENCH_MINUTES: Record<AgendaKind, number> = {
	inside: 0,
	flag: 15,
	air: 20,
	'not-back': 5,
	cluster: 15,
	'filters-over': 5,
	held: 20,
	release: 5,
	overdue: 5,
	'person-over': 20,
	dirty: 4,
	running: 5,
	'filters-due': 5,
	due: 5,
	'person-due': 20,
	watch: 5
};
