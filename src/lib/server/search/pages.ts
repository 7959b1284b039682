import type { Permission } from '../kernel/permissions.ts';

/** What can be done or opened by its name, with what it asks for; other words for it stand behind. */
export const PAGES: readonly { name: string; also: string; href: string; needs: Permission }[] = [
	{ name: 'Today', also: 'shift sheet next', href: '/', needs: 'view' },
	{ name: 'New hazard plan', also: 'new plan write', href: '/hazards/new', needs: 'plan' },
	{ name: 'Hazard plans', also: 'tasks', href: '/hazards', needs: 'view' },
	{ name: 'Substances', also: 'limits contaminants', href: '/hazards/substances', needs: 'view' },
	{ name: 'Open filters', also: 'new pair for a task', href: '/filters', needs: 'open filters' },
	{ name: 'Opened pairs', also: 'change dates ledger', href: '/filters/opened', needs: 'view' },
	{ name: 'Filter store', also: 'delivery lots recall', href: '/filters/store', needs: 'view' },
	{ name: 'Register', also: 'items list', href: '/items', needs: 'view' },
	{ name: 'New item', also: 'add to the register', href: '/items/new', needs: 'keep the register' },
	{
		name: 'Items from a table',
		also: 'csv import',
		href: '/items/import',
		needs: 'keep the register'
	},
	{
		name: 'Filters from a table',
		also: 'csv import',
		href: '/filters/import',
		needs: 'keep the stores'
	},
	{
		name: 'Messages',
		also: 'e-mail mail digest notices switch off mailbox',
		href: '/settings/messages',
		needs: 'view'
	},
	{
		name: 'Parts store',
		also: 'spare parts consumables stock lots delivery buy csv import',
		href: '/faults/parts',
		needs: 'view'
	},
	{
		name: 'Stock-take of parts',
		also: 'count inventory',
		href: '/faults/parts/count',
		needs: 'keep the stores'
	},
	{
		name: 'Compare models',
		also: 'models side by side limits',
		href: '/items/models',
		needs: 'view'
	},
	{ name: 'Models', also: 'donning card maker', href: '/items/models', needs: 'view' },
	{ name: 'Procedures', also: 'lists steps editor', href: '/items/procedures', needs: 'view' },
	{ name: 'Musters', also: 'batch monthly', href: '/items/musters', needs: 'view' },
	{ name: 'Pressure bench', also: 'test suit mask', href: '/bench', needs: 'view' },
	{ name: 'Entry board', also: 'team in turn back', href: '/air/board', needs: 'view' },
	{ name: 'Fill room', also: 'fill cylinders panel', href: '/air/filling', needs: 'view' },
	{ name: 'Cylinders', also: 'pressure test life', href: '/air/cylinders', needs: 'view' },
	{ name: 'Air tests', also: 'quality compressor', href: '/air/tests', needs: 'view' },
	{ name: 'Airlines', also: 'rigs hoses', href: '/air/airlines', needs: 'view' },
	{ name: 'Duration', also: 'how long minutes air', href: '/air', needs: 'view' },
	{ name: 'Plan', also: 'what falls due', href: '/plan', needs: 'view' },
	{ name: 'Faults', also: 'defects repairs', href: '/faults', needs: 'view' },
	{
		name: 'People',
		also: 'wearers fit tests clearance training',
		href: '/people',
		needs: 'see wearers'
	},
	{
		name: 'Fit tests',
		also: 'counter pass rates which mask fits',
		href: '/people/fit-tests',
		needs: 'see wearers'
	},
	{
		name: 'Competence',
		also: 'authorisations who may repair fill release',
		href: '/people/competence',
		needs: 'view'
	},
	{
		name: 'Typed names',
		also: 'match names to wearers',
		href: '/people/names',
		needs: 'see wearers'
	},
	{
		name: 'Wearers from a table',
		also: 'csv import people',
		href: '/people/import',
		needs: 'keep wearers'
	},
	{
		name: 'My fit tests',
		also: 'me own report a change of the face weight',
		href: '/people/me',
		needs: 'view'
	},
	{ name: 'New wearer', also: 'add person', href: '/people/new', needs: 'keep wearers' },
	{ name: 'Records', also: 'history log chain', href: '/records', needs: 'view' },
	{ name: 'Settings: you', also: 'pin card password', href: '/settings', needs: 'view' },
	{
		name: 'Settings: site',
		also: 'name zone rule set file',
		href: '/settings/site',
		needs: 'keep the site'
	},
	{
		name: 'Settings: places and floors',
		also: 'store vehicle',
		href: '/settings/places',
		needs: 'keep the site'
	},
	{
		name: 'Settings: intervals',
		also: 'rules how often',
		href: '/settings/rules',
		needs: 'keep the site'
	},
	{
		name: 'Settings: schools',
		also: 'choices seal check',
		href: '/settings/schools',
		needs: 'keep the site'
	},
	{
		name: 'Settings: calendar and test houses',
		also: 'holidays working days',
		href: '/settings/calendar',
		needs: 'keep the site'
	},
	{
		name: 'Settings: accounts',
		also: 'people new account invite',
		href: '/settings/accounts',
		needs: 'keep accounts'
	}
];
