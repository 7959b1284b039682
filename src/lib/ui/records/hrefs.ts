import type { ActionLink, SubjectKind } from '$core/actions/action';

/** The page of each kind of thing that the log speaks of; null where it has none of its own. */
const PAGES: Record<SubjectKind, ((id: string) => string) | null> = {
	account: null,
	'air-source': (id) => `/air/tests/${id}`,
	backup: () => '/records',
	batch: (id) => `/wash/${id}`,
	bench: (id) => `/bench/${id}`,
	cluster: () => '/faults/learn',
	container: () => '/wash/stock',
	defect: (id) => `/faults/${id}`,
	drill: (id) => `/drill/sessions/${id}`,
	entry: (id) => `/air/board/log#team-${id}`,
	fill: (id) => `/air/filling#fill-${id}`,
	'fill-panel': () => '/air/filling',
	'filter-lot': (id) => `/filters/lots/${id}`,
	'filter-model': () => '/filters/store',
	import: null,
	item: null,
	recall: (id) => `/faults/recalls/${id}`,
	job: (id) => `/faults/repairs/${id}`,
	model: (id) => `/items/models/${id}`,
	muster: (id) => `/items/musters/${id}`,
	pair: (id) => `/filters/pairs/by-id/${id}`,
	place: () => '/settings/places',
	plan: (id) => `/hazards/${id}/editions`,
	procedure: (key) => `/items/procedures/${key}`,
	rule: () => '/settings/rules',
	run: (id) => `/runs/${id}`,
	seal: null,
	site: () => '/settings/site',
	substance: (key) => `/hazards/substances/${key}`,
	'test-house': () => '/settings/calendar',
	part: () => '/faults/parts',
	authorisation: () => '/people/competence',
	wearer: (id) => `/people/${id}`,
	'work-plan': () => '/plan'
};

/** Where a link of the log leads; null where there is no page for it. */
export const hrefOf = ({ to, id }: ActionLink): string | null => PAGES[to]?.(id) ?? null;
