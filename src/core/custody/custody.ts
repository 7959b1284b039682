import type { Block } from '../readiness/block.ts';

/** Where an item can be. With whom, in which batch and since when stands in its one open row. */
export const WHERES = [
	'shelf',
	'issued',
	'returned',
	'wash',
	'drying',
	'bench',
	'filling',
	'service',
	'test house',
	'quarantine'
] as const;
export type Where = (typeof WHERES)[number];

/** Where an item may go next. Common practice: what was worn is cleaned or looked at before it lies on a shelf. */
export const MOVES: Readonly<Record<Where, readonly Where[]>> = {
	// To another shelf, too.
	shelf: [
		'shelf',
		'issued',
		'returned',
		'wash',
		'bench',
		'filling',
		'service',
		'test house',
		'quarantine'
	],
	// Straight back to the shelf where it was not used.
	issued: ['returned', 'shelf', 'issued', 'filling', 'quarantine'],
	returned: ['wash', 'drying', 'bench', 'filling', 'service', 'quarantine', 'shelf'],
	wash: ['drying', 'returned', 'service', 'quarantine'],
	drying: ['shelf', 'bench', 'wash', 'service', 'quarantine'],
	bench: ['shelf', 'service', 'returned', 'test house', 'quarantine'],
	filling: ['shelf', 'test house', 'service', 'quarantine'],
	service: ['shelf', 'bench', 'returned', 'wash', 'test house', 'quarantine'],
	'test house': ['shelf', 'bench', 'filling', 'service', 'quarantine'],
	quarantine: ['shelf', 'returned', 'bench', 'service', 'test house']
};

export const mayMove = (from: Where, to: Where): boolean => MOVES[from].includes(to);

/** What being somewhere makes of an item: null says nothing of it. A cylinder is held by what is in it, not by waiting. */
export const BLOCK_OF: Readonly<Record<Where, Block | null>> = {
	shelf: null,
	issued: 'issued',
	returned: 'in wash',
	wash: 'in wash',
	drying: 'in wash',
	bench: 'in service',
	filling: null,
	service: 'in service',
	'test house': 'in service',
	quarantine: 'held'
};

/** Where an item is, as words after “It is”. */
export const WHERE_WORDS: Readonly<Record<Where, string>> = {
	shelf: 'on its shelf',
	issued: 'out',
	returned: 'back, waiting for the wash',
	wash: 'in the bath',
	drying: 'drying',
	bench: 'at the bench',
	filling: 'waiting to be filled',
	service: 'under repair',
	'test house': 'at a test house',
	quarantine: 'in quarantine'
};

/** The name of each place to wait, as a station of the line. */
export const WHERE_NAMES: Readonly<Record<Where, string>> = {
	shelf: 'On the shelf',
	issued: 'Out',
	returned: 'Back, dirty',
	wash: 'Bath',
	drying: 'Dry and look',
	bench: 'Bench',
	filling: 'Filling',
	service: 'Repair',
	'test house': 'Test house',
	quarantine: 'Quarantine'
};
