import type { PlanState } from '$core/hazards/plan-status';
import type { ItemState } from '$core/readiness/findings';

/** The mark that stands for a plan's standing. */
export const PLAN_MARKS: Record<PlanState, ItemState> = {
	draft: 'retired',
	'in force': 'ready',
	'review due': 'due',
	expired: 'overdue',
	'in question': 'held'
};

const ROLES = ['viewer', 'technician', 'supervisor', 'admin'];
const rank = (role: string | undefined) => ROLES.indexOf(role ?? '');

/** Those parts of a section that a role reaches. */
export const reachedBy = <T extends { from: string }>(
	role: string | undefined,
	links: readonly T[]
): T[] => links.filter(({ from }) => rank(role) >= rank(from));

/** The parts of the hazards section. */
export const HAZARD_LINKS = [
	{ href: '/hazards', name: 'Plans' },
	{ href: '/hazards/substances', name: 'Substances' }
] as const;

/** The parts of the faults section. */
export const FAULT_LINKS = [
	{ href: '/faults', name: 'Faults' },
	{ href: '/faults/report', name: 'Write one down' },
	{ href: '/faults/learn', name: 'What the record teaches' },
	{ href: '/faults/recalls', name: 'Recalls' },
	{ href: '/faults/parts', name: 'Parts store' }
] as const;

/** The parts of the counter. */
export const COUNTER_LINKS = [
	{ href: '/counter', name: 'Hand out' },
	{ href: '/counter/return', name: 'Return' },
	{ href: '/counter/team', name: 'Kit out a team' },
	{ href: '/counter/where', name: 'Where everything is' },
	{ href: '/counter/put', name: 'Put away' }
] as const;

/** The parts of the wash line. */
export const WASH_LINKS = [
	{ href: '/wash', name: 'Line' },
	{ href: '/wash/look', name: 'Look over' },
	{ href: '/wash/stock', name: 'Stock' }
] as const;

/** The parts of the plan. */
export const PLAN_LINKS = [
	{ href: '/plan', name: 'Weeks' },
	{ href: '/plan/day', name: 'My day' },
	{ href: '/plan/forecast', name: 'Forecast' },
	{ href: '/plan/buy', name: 'Buy and fill' },
	{ href: '/plan/hours', name: 'Hours and calendars' }
] as const;

/** The parts of the people section. */
export const PEOPLE_LINKS = [
	{ href: '/people', name: 'Wearers' },
	{ href: '/people/fit-tests', name: 'Fit tests' },
	{ href: '/people/competence', name: 'Competence' },
	{ href: '/people/names', name: 'Typed names' }
] as const;

/** The parts of the trainer, with the least role that reaches each. */
export const DRILL_LINKS = [
	{ href: '/drill', name: 'Drill', from: 'viewer' },
	{ href: '/drill/gallery', name: 'Good beside bad', from: 'viewer' },
	{ href: '/drill/exam', name: 'Exam', from: 'viewer' },
	{ href: '/drill/trainer', name: 'Trainer', from: 'supervisor' }
] as const;

/** The parts of the filters section. */
export const FILTER_LINKS = [
	{ href: '/filters', name: 'For a task' },
	{ href: '/filters/opened', name: 'Opened pairs' },
	{ href: '/filters/store', name: 'Store' }
] as const;

/** The parts of the air section. */
export const AIR_LINKS = [
	{ href: '/air', name: 'Duration' },
	{ href: '/air/board', name: 'Entry board' },
	{ href: '/air/filling', name: 'Fill room' },
	{ href: '/air/cylinders', name: 'Cylinders' },
	{ href: '/air/tests', name: 'Air tests' },
	{ href: '/air/airlines', name: 'Airlines' },
	{ href: '/air/banks', name: 'Banks' },
	{ href: '/air/hoses', name: 'Hoses' }
] as const;

/** The parts of the settings, with the least role that reaches each. */
export const SETTINGS_LINKS = [
	{ href: '/settings', name: 'You', from: 'viewer' },
	{ href: '/settings/device', name: 'This device', from: 'viewer' },
	{ href: '/settings/messages', name: 'Messages', from: 'viewer' },
	{ href: '/settings/keys', name: 'Keys for programs', from: 'viewer' },
	{ href: '/settings/site', name: 'Site', from: 'supervisor' },
	{ href: '/settings/places', name: 'Places and floors', from: 'supervisor' },
	{ href: '/settings/rules', name: 'Intervals', from: 'supervisor' },
	{ href: '/settings/schools', name: 'Schools', from: 'supervisor' },
	{ href: '/settings/calendar', name: 'Calendar and test houses', from: 'supervisor' },
	{ href: '/settings/accounts', name: 'Accounts', from: 'admin' },
	{ href: '/settings/access', name: 'Who signs, who gets in', from: 'admin' }
] as const;
