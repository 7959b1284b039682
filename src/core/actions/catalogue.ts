import type { z } from 'zod';
import type { Action, ActionLink, RecordKind, SubjectKind } from './action.ts';
import { AIR_ACTIONS, ENTRY_ACTIONS } from './air.ts';
import { BACKUP_ACTIONS } from './backups.ts';
import { BENCH_ACTIONS } from './bench.ts';
import { CUSTODY_ACTIONS } from './custody.ts';
import { DRILL_ACTIONS } from './drill.ts';
import { FAULT_ACTIONS } from './faults.ts';
import { FILTER_ACTIONS } from './filters.ts';
import { HAZARD_ACTIONS } from './hazards.ts';
import { INSPECTION_ACTIONS } from './inspection.ts';
import { ACCESS_ACTIONS } from './access.ts';
import { PLAN_ACTIONS } from './plan.ts';
import { PEOPLE_ACTIONS } from './people.ts';
import { SITE_ACTIONS } from './site.ts';
import { REGISTER_ACTIONS } from './register.ts';

/** Everything that is recorded, by name. What is not in here cannot be recorded. */
export const ACTIONS = {
	...INSPECTION_ACTIONS,
	...FAULT_ACTIONS,
	...FILTER_ACTIONS,
	...HAZARD_ACTIONS,
	...REGISTER_ACTIONS,
	...ACCESS_ACTIONS,
	...BENCH_ACTIONS,
	...AIR_ACTIONS,
	...ENTRY_ACTIONS,
	...SITE_ACTIONS,
	...PEOPLE_ACTIONS,
	...CUSTODY_ACTIONS,
	...PLAN_ACTIONS,
	...DRILL_ACTIONS,
	...BACKUP_ACTIONS
};
export type ActionName = keyof typeof ACTIONS;
export type PayloadOf<N extends ActionName> = z.input<(typeof ACTIONS)[N]['payload']>;

/** Names of actions that are steps on the way to something recorded whole. */
export const DETAILS = Object.keys(ACTIONS).filter((name) => actionOf(name)?.detail);

function actionOf(name: string): Action | undefined {
	return (ACTIONS as unknown as Record<string, Action | undefined>)[name];
}

/** What a person does by an action that is a signature; undefined for any other. */
export const signsBy = (name: ActionName): string | undefined => actionOf(name)?.signs;

/** The record that an entry makes whole, and its id; undefined where it makes none. */
export function recordOf(
	name: string,
	subject: string,
	payload: Record<string, unknown>
): { kind: RecordKind; id: string } | undefined {
	const kind = actionOf(name)?.keeps;
	if (!kind) return undefined;
	const id = subject.slice(subject.indexOf(':') + 1);
	return { kind, id: kind === 'plan edition' ? `${id}/${String(payload.edition)}` : id };
}

/** The subject of an entry, such as run:uuid. */
export const subjectOf = (name: ActionName, id: string): string => `${ACTIONS[name].subject}:${id}`;

/**
 * A payload as it is kept.
 * @throws ZodError where it is not what the catalogue says
 */
export const checkPayload = <N extends ActionName>(name: N, payload: PayloadOf<N>) =>
	ACTIONS[name].payload.parse(payload) as Record<string, unknown>;

/** An entry as people read it, and what it leads to. */
export interface Told {
	says: string;
	links: ActionLink[];
}

/** Reads an entry of the log; one that the catalogue does not know, or knows otherwise, is told by its name. */
export function tell(name: string, subject: string, payload: unknown): Told {
	const known = actionOf(name);
	const read = known?.payload.safeParse(payload);
	const at = subject.indexOf(':');
	const own: ActionLink[] =
		known && at > 0 ? [{ to: known.subject as SubjectKind, id: subject.slice(at + 1) }] : [];
	if (!known || !read?.success) return { says: name, links: own };
	return { says: known.says(read.data), links: [...own, ...(known.links?.(read.data) ?? [])] };
}

/** What the log is searched by: every action is in one of them. */
const GROUPS = {
	inspections: [INSPECTION_ACTIONS],
	'faults and repairs': [FAULT_ACTIONS],
	filters: [FILTER_ACTIONS],
	hazards: [HAZARD_ACTIONS],
	air: [AIR_ACTIONS, ENTRY_ACTIONS],
	'bench tests': [BENCH_ACTIONS],
	'hand-out and wash': [CUSTODY_ACTIONS],
	people: [PEOPLE_ACTIONS, DRILL_ACTIONS],
	plan: [PLAN_ACTIONS],
	register: [REGISTER_ACTIONS],
	'site and access': [SITE_ACTIONS, ACCESS_ACTIONS, BACKUP_ACTIONS]
} as const;
export type RecordGroup = keyof typeof GROUPS;
export const RECORD_GROUPS = Object.keys(GROUPS) as [RecordGroup, ...RecordGroup[]];

/** The actions of a group. */
export const actionsOf = (group: RecordGroup): string[] =>
	GROUPS[group].flatMap((actions) => Object.keys(actions));
