import type { Inlet } from './blocking.ts';
import { FAMILIES } from './families.ts';

/** What a family of equipment can do and needs, beside its airway: pages and services ask this and name no family. */
export interface FamilyRecord {
	family: string;
	/** Where filters hang on it, which is what limits their mass; null: it carries none of its own. */
	carries: 'half mask' | 'full-face mask' | 'hose' | 'blower' | 'pouch' | null;
	/** Its filter stays sealed until somebody flees with it: no plan is asked, its use-by date is its last day. */
	keepsSealed: boolean;
	/** The kind of protection that it is with its filters on, by the family of what is put onto it; '' with nothing. */
	servesAs: Readonly<Record<string, string>>;
	/** The kind of protection that it is by its own air, by the family of what is put onto it. */
	suppliesAs: Readonly<Record<string, string>>;
	/** The stations at which its filters are looked at. */
	filterStations: readonly string[];
	/** The stations at which what sits over its filters is looked at: pre-filter, retainer, adapter. */
	layerStations: readonly string[];
	/** Others are put together on it. */
	takesParts: boolean;
	/** Families of which one has to be on it for it to be complete. */
	neverWithout: readonly string[];
	/** The station that a part of each family is drawn at; of others, none. */
	partStations: Readonly<Record<string, string>>;
	/** How it is tested on the pressure bench, and the station that a leak is written to. */
	bench: { recipes: readonly string[]; station: string } | null;
	/** The room of the air section that knows more of it. */
	air: 'cylinder' | 'rig' | null;
	/** Somebody goes in with it, by its air. */
	goesIn: boolean;
	/** It goes through the wash as a whole; what is not washed is wiped. */
	washed: boolean;
	/** What a fit test takes it for; null: it seals on no face. */
	fit: 'half' | 'full' | null;
	/** How its inlet can be blocked for a seal check, the usual way first; empty: it takes none. */
	inlets: readonly Inlet[];
	/** How it is put on, in order. Common practice; a model may say otherwise. */
	straps: readonly string[];
}

const NOTHING: Omit<FamilyRecord, 'family'> = {
	carries: null,
	keepsSealed: false,
	servesAs: {},
	suppliesAs: {},
	filterStations: [],
	layerStations: [],
	takesParts: false,
	neverWithout: [],
	partStations: {},
	bench: null,
	air: null,
	goesIn: false,
	washed: false,
	fit: null,
	inlets: [],
	straps: []
};

/** What differs from nothing, by family. Which recipes and inlets belong to which is common practice. */
const DIFFERS: Record<string, Partial<FamilyRecord>> = {
	'half-mask': {
		carries: 'half mask',
		washed: true,
		fit: 'half',
		servesAs: { '': 'half-mask' },
		filterStations: ['filter-left', 'filter-right'],
		layerStations: ['prefilter-left', 'prefilter-right'],
		inlets: ['cartridges', 'round-pads', 'flat-pads', 'prefilter-cap'],
		straps: [
			'Glasses, jewellery and hair out of the seal first.',
			'Mask on nose and chin, cradle over the crown.',
			'Top pair first, both ends together; then the neck strap; neither hard.',
			'Where it drops down or latches: hanging at the neck only in clean air.',
			'Helmet last, over nothing that seals.'
		]
	},
	'full-face': {
		carries: 'full-face mask',
		washed: true,
		fit: 'full',
		servesAs: { '': 'full-face' },
		filterStations: ['filter-left', 'filter-right'],
		bench: { recipes: ['mask-full-face'], station: 'facepiece' },
		inlets: ['cartridges', 'round-pads', 'prefilter-cap', 'hose', 'port'],
		straps: [
			'Glasses, jewellery and hair out of the seal first.',
			'Straps at full length; chin in first, harness over the head.',
			'Lowest pair first, then upwards, the brow last; each pair together, straight back.',
			'Where it drops down or latches: only in clean air.',
			'Helmet last, over nothing that seals.'
		]
	},
	'canister-mask': {
		carries: 'hose',
		washed: true,
		fit: 'full',
		servesAs: { '': 'full-face' },
		filterStations: ['canister'],
		inlets: ['hose'],
		straps: [
			'Glasses, jewellery and hair out of the seal first.',
			'Canister on the belt or chest, hose not twisted.',
			'Chin in first, harness over the head.',
			'Temples first, then the top, then the bottom pair.',
			'Helmet last, over nothing that seals.'
		]
	},
	'powered-blower': {
		carries: 'blower',
		servesAs: {
			'': 'powered-hood',
			'half-mask': 'powered-half-mask',
			'full-face': 'powered-full-face'
		},
		filterStations: ['filter'],
		takesParts: true,
		partStations: { 'full-face': 'hood', 'half-mask': 'hood', 'opened-filter': 'filter' }
	},
	'ba-set': {
		suppliesAs: { 'full-face': 'ba' },
		takesParts: true,
		neverWithout: ['cylinder', 'full-face'],
		partStations: { cylinder: 'cylinder', 'full-face': 'mask' },
		goesIn: true,
		inlets: ['port'],
		straps: [
			'Glasses, jewellery and hair out of the seal first.',
			'Frame: one shoulder, then the other.',
			'Belt on the hips, closed and pulled; shoulder straps last.',
			'Reach over the head: nothing holds you back.',
			'Mask: chin in first, lowest pair first and upwards; then the demand valve.',
			'Helmet last, over nothing that seals.'
		]
	},
	airline: {
		suppliesAs: {
			'full-face': 'airline-full-face',
			'half-mask': 'airline-half-mask',
			'ventilated-suit': 'airline-hood'
		},
		takesParts: true,
		air: 'rig',
		partStations: {
			cylinder: 'escape',
			'full-face': 'facepiece',
			'half-mask': 'facepiece',
			'ventilated-suit': 'facepiece'
		}
	},
	'gas-tight-suit': {
		takesParts: true,
		washed: true,
		bench: { recipes: ['suit-en', 'suit-us', 'suit-us-general'], station: 'sleeves' }
	},
	'ventilated-suit': { takesParts: true, washed: true },
	'escape-set': { carries: 'pouch', keepsSealed: true, filterStations: ['source'] },
	cylinder: { air: 'cylinder', goesIn: true }
};

/** One record per family that has an airway. */
export const FAMILY_RECORDS: readonly FamilyRecord[] = FAMILIES.map(({ family }) => ({
	...NOTHING,
	...DIFFERS[family],
	family
}));

/** The record of a family; of one that is not known, that it can nothing. */
export const recordOf = (family: string): FamilyRecord =>
	FAMILY_RECORDS.find((record) => record.family === family) ?? { ...NOTHING, family };

/** The kind of protection that an item of a family is, with filters and what is put onto it; null: none by filters. */
export function servedBy(family: string, parts: readonly string[] = []): string | null {
	const { servesAs } = recordOf(family);
	const part = parts.find((one) => one in servesAs) ?? '';
	return servesAs[part] ?? null;
}

/** The kind of protection that an item is handed out as, by filters or by its own air; null: it is none. */
export function handedOutAs(family: string, parts: readonly string[] = []): string | null {
	const { suppliesAs } = recordOf(family);
	const part = parts.find((one) => one in suppliesAs) ?? '';
	return suppliesAs[part] ?? servedBy(family, parts);
}

/** The families that can be handed out as one of some kinds. */
export const familiesServing = (kinds: ReadonlySet<string>): string[] =>
	familiesWhere(({ servesAs, suppliesAs }) =>
		[...Object.values(servesAs), ...Object.values(suppliesAs)].some((kind) => kinds.has(kind))
	);

/** The families of which something holds. */
export const familiesWhere = (holds: (record: FamilyRecord) => boolean): string[] =>
	FAMILY_RECORDS.filter(holds).map((record) => record.family);
