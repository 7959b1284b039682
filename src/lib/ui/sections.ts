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

/** The parts of the hazards section. */
export const HAZARD_LINKS = [
	{ href: '/hazards', name: 'Plans' },
	{ href: '/hazards/substances', name: 'Substances' }
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

/** The parts of the settings; some are for whoever keeps the accounts. */
export const SETTINGS_LINKS = [
	{ href: '/settings', name: 'You', admin: false },
	{ href: '/settings/device', name: 'This device', admin: false },
	{ href: '/settings/keys', name: 'Keys for programs', admin: false },
	{ href: '/settings/accounts', name: 'Accounts', admin: true },
	{ href: '/settings/site', name: 'Who signs, who gets in', admin: true }
] as const;
