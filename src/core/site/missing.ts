/** What a site has so far. */
export interface SiteSoFar {
	named: boolean;
	/** Two people approve and release. */
	twoPeople: boolean;
	/** More than one person has an account. */
	others: boolean;
	place: boolean;
	model: boolean;
	item: boolean;
	/** An item was inspected here. */
	inspected: boolean;
	/** An item takes filters. */
	takesFilters: boolean;
	filterLot: boolean;
	part: boolean;
	/** Somebody stands in the register of wearers. */
	wearer: boolean;
	/** A floor above zero. */
	floor: boolean;
	plan: boolean;
	planInForce: boolean;
}

/** Something that a site still lacks before its work can begin. */
export interface Missing {
	key: string;
	/** What is to be done. */
	what: string;
	/** Why it is wanted. */
	why: string;
	href: string;
}

type Step = Missing & { lacks: (site: SiteSoFar) => boolean };

/** What a site needs, in the order in which it is best done. Common practice. */
const STEPS: readonly Step[] = [
	{
		key: 'site',
		what: 'Name the site and choose its rules',
		why: 'Every verdict says by which rules it was reached.',
		href: '/set-up/site',
		lacks: ({ named }) => !named
	},
	{
		key: 'places',
		what: 'Name the places where equipment is kept',
		why: 'Every item stands somewhere.',
		href: '/settings/places',
		lacks: ({ place }) => !place
	},
	{
		key: 'people',
		what: 'Make accounts for the others',
		why: 'Who wrote a plan does not approve it, and who repaired does not release.',
		href: '/settings/accounts',
		lacks: ({ others, twoPeople }) => twoPeople && !others
	},
	{
		key: 'models',
		what: 'Choose the models that the site has',
		why: 'A model says how many filters it takes, how it is put on and how it is tested.',
		href: '/set-up/equipment',
		lacks: ({ model }) => !model
	},
	{
		key: 'items',
		what: 'Bring the register in',
		why: 'One row per item, by its tag, from a table or one by one.',
		href: '/items/import',
		lacks: ({ item }) => !item
	},
	{
		key: 'filters',
		what: 'Take the filters into the store',
		why: 'Nothing that takes filters is ready without them on record.',
		href: '/filters/import',
		lacks: ({ takesFilters, filterLot }) => takesFilters && !filterLot
	},
	{
		key: 'parts',
		what: 'Take the spare parts into the store',
		why: 'A repair names the lot of every part that it used.',
		href: '/faults/parts',
		lacks: ({ item, part }) => item && !part
	},
	{
		key: 'floors',
		what: 'Say how many each place keeps ready',
		why: 'Without a floor nothing says that a shelf runs short.',
		href: '/settings/places',
		lacks: ({ item, floor }) => item && !floor
	},
	{
		key: 'plan',
		what: 'Write the first hazard plan',
		why: 'Filters are opened from a plan, and a hand-out is held against one.',
		href: '/hazards',
		lacks: ({ takesFilters, plan }) => takesFilters && !plan
	},
	{
		key: 'approve',
		what: 'Have a hazard plan approved',
		why: 'A draft is no plan: a supervisor who did not write it approves it.',
		href: '/hazards',
		lacks: ({ plan, planInForce }) => plan && !planInForce
	},
	{
		key: 'inspect',
		what: 'Inspect the first items',
		why: 'An item that nobody looked at here is not ready.',
		href: '/items?state=overdue',
		lacks: ({ item, inspected }) => item && !inspected
	}
];

/** What a site still lacks, what comes first before what needs it; empty where nothing does. */
export const missingOf = (site: SiteSoFar): Missing[] =>
	STEPS.filter((step) => step.lacks(site)).map(({ key, what, why, href }) => ({
		key,
		what,
		why,
		href
	}));
