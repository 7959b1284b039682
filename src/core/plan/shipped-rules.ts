import type { RuleSet } from '../data/substance.ts';
import { commonPractice, type Origin, published } from '../verdict.ts';
import type { Every, IntervalRule, RuleScope, RuleWhat } from './rules.ts';

const ALL: RuleScope = { families: [], modelId: null, usePattern: null, placeId: null };
/** Days before the last at which an inspection counts as due. Site default. */
const WINDOW_DAYS = 7;

/** A shipped rule; what is left out is as usual. */
const shipped = (
	key: string,
	what: RuleWhat,
	every: Every,
	origin: Origin,
	rest: Partial<IntervalRule> = {}
): IntervalRule => ({
	...ALL,
	key,
	what,
	detail: '',
	every,
	window: 'after' in every ? 0 : WINDOW_DAYS,
	replaces: null,
	origin,
	...rest
});

/** What happened to an item asks for a look, whatever the calendar says. */
const AFTER_HARM = [
	shipped(
		'after-drop',
		'inspection',
		{ after: 'drop' },
		commonPractice('looked at after a drop or a blow, before it is used again')
	),
	shipped(
		'after-splash',
		'inspection',
		{ after: 'splash' },
		commonPractice('looked at after a splash of chemicals')
	)
];

/** Rules that come with each rule set. */
export const SHIPPED_RULES: Record<RuleSet, readonly IntervalRule[]> = {
	uk: [
		shipped(
			'uk-monthly',
			'inspection',
			{ months: 1 },
			published('HSG53 and COSHH regulation 9, thorough examination monthly')
		),
		...AFTER_HARM
	],
	us: [
		shipped(
			'us-monthly',
			'inspection',
			{ months: 1 },
			commonPractice('fact of the trade: monthly by the responsible person')
		),
		shipped(
			'us-emergency',
			'inspection',
			{ months: 1 },
			published('29 CFR 1910.134(h)(3)(i)(B), emergency use monthly'),
			{ usePattern: 'emergency' }
		),
		...AFTER_HARM
	]
};

const SUITS = { families: ['gas-tight-suit'] };
const MASK_BENCH = { families: ['full-face'] };

/** Rules that many sites have and none must: each is taken up, changed or left by the site. */
export const OFFERED_RULES: readonly IntervalRule[] = [
	shipped(
		'suit-yearly',
		'bench test',
		{ months: 12 },
		commonPractice('suits are pressed yearly; makers by EN 943'),
		{ ...SUITS, window: 30 }
	),
	shipped('suit-use', 'bench test', { after: 'use' }, commonPractice('after every use'), SUITS),
	shipped(
		'suit-repair',
		'bench test',
		{ after: 'repair' },
		commonPractice('after every repair'),
		SUITS
	),
	shipped(
		'mask-store',
		'bench test',
		{ months: 6 },
		commonPractice('masks in store are pressed every half year'),
		{ ...MASK_BENCH, window: 14 }
	),
	shipped(
		'mask-use',
		'bench test',
		{ after: 'use' },
		commonPractice('masks are pressed after every use'),
		MASK_BENCH
	),
	shipped(
		'mask-repair',
		'bench test',
		{ after: 'repair' },
		commonPractice('masks are pressed after every repair'),
		MASK_BENCH
	),
	shipped(
		'personal-weekly',
		'list',
		{ days: 7 },
		commonPractice('a personal mask is looked at weekly by its wearer'),
		{
			families: ['half-mask', 'full-face', 'canister-mask'],
			usePattern: 'personal',
			detail: 'weekly',
			window: 2
		}
	),
	shipped(
		'half-mask-deep',
		'list',
		{ months: 12 },
		commonPractice('taken apart yearly, before the fit test'),
		{ families: ['half-mask'], detail: 'yearly deep', window: 30 }
	),
	shipped(
		'set-closed-down',
		'list',
		{ after: 'use' },
		commonPractice('a set is closed down after every use, on its list'),
		{ families: ['ba-set'], detail: 'after use' }
	),
	shipped(
		'disc-life',
		'service',
		{ months: 60 },
		commonPractice(
			'exhalation discs are changed every 4 to 6 years; the maker’s figure comes first'
		),
		{ families: ['half-mask', 'full-face', 'canister-mask'], detail: 'replace-disc', window: 60 }
	),
	shipped(
		'set-overhaul',
		'service',
		{ months: 72 },
		commonPractice(
			'demand valve and reducer are overhauled every 6 to 10 years; the maker comes first'
		),
		{ families: ['ba-set'], detail: 'ba-service', window: 90 }
	)
];
