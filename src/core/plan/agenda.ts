import type { Severity } from '../data/reject-codes.ts';
import type { DueWhat } from '../readiness/findings.ts';
import type { Day } from './calendar.ts';

/** What one line of the shift sheet is about. */
export type AgendaKind =
	| 'inside'
	| 'flag'
	| 'air'
	| 'held'
	| 'release'
	| 'filters-over'
	| 'overdue'
	| 'running'
	| 'filters-due'
	| 'due'
	| 'watch';

export interface AgendaEntry {
	kind: AgendaKind;
	tag: string;
	/** Where it can cost most, the place that falls below its floor counts first. */
	belowFloor?: boolean;
	severity?: Severity;
	on: Day;
}

/** Kinds in order of consequence: what someone might breathe through first. Common practice. */
const CONSEQUENCE: readonly AgendaKind[] = [
	'inside',
	'flag',
	'air',
	'filters-over',
	'held',
	'release',
	'overdue',
	'running',
	'filters-due',
	'due',
	'watch'
];

/** Sorts the shift sheet: by consequence, then places short of ready equipment, then the earlier day, then tag. */
export function byConsequence(a: AgendaEntry, b: AgendaEntry): number {
	return (
		CONSEQUENCE.indexOf(a.kind) - CONSEQUENCE.indexOf(b.kind) ||
		Number(b.belowFloor ?? false) - Number(a.belowFloor ?? false) ||
		Number(b.severity === 'stop') - Number(a.severity === 'stop') ||
		a.on.localeCompare(b.on) ||
		a.tag.localeCompare(b.tag)
	);
}

/** What is to be done about an item that falls due. */
export const DUE_WORDS: Record<DueWhat, string> = {
	inspection: 'Inspection',
	'bench test': 'Bench test',
	filters: 'Change the filters',
	'cylinder test': 'Periodic test of the cylinder',
	'fresh air': 'Fresh air in the cylinder',
	part: 'Inspection of a part in it'
};

/** Minutes at the bench per line. Common practice. */
export const BENCH_MINUTES: Record<AgendaKind, number> = {
	inside: 0,
	flag: 15,
	air: 20,
	'filters-over': 5,
	held: 20,
	release: 5,
	overdue: 5,
	running: 5,
	'filters-due': 5,
	due: 5,
	watch: 5
};
