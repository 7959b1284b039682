import type { ModelCard } from '../register/model-card.ts';
import { recordOf } from './family-records.ts';
import { textTable } from './text-table.ts';

/** A model by its kind of construction, without a maker: what the site copies and names as its own. */
export interface ModelTemplate {
	key: string;
	family: string;
	/** The construction in words. */
	name: string;
	/** How it takes filters, in the word that filters carry too; `none`: it takes none of its own. */
	mount: string;
	filterCount: number;
	/** Rated pressure of a set or cylinder, bar; null: none. */
	ratedBar: number | null;
	/** What is known of every such construction: the limits that a maker may only make stricter. */
	card: ModelCard;
}

/** Kinds of construction. Common practice; rated pressures published: EN 137, EN 12021 and 49 CFR 178 know 200 and 300 bar, from memory. */
const TABLE = `
key | family | name | mount | filters | bar
half-bayonet | half-mask | Half mask, two filters, quarter turn | quarter turn | 2 |
half-press | half-mask | Half mask, two filters, press ring | press ring | 2 |
half-thread | half-mask | Half mask, one filter, round thread | thread | 1 |
full-bayonet | full-face | Full-face mask, two filters, quarter turn | quarter turn | 2 |
full-thread | full-face | Full-face mask, one filter, round thread | thread | 1 |
full-port | full-face | Full-face mask for a demand valve | none | 0 |
canister | canister-mask | Mask with a canister on a hose | thread | 1 |
blower-hood | powered-blower | Powered blower, two filters, belt | blower | 2 |
blower-one | powered-blower | Powered blower, one filter, belt | blower | 1 |
ba-300 | ba-set | Breathing apparatus, one cylinder, 300 bar | none | 0 | 300
ba-200 | ba-set | Breathing apparatus, one cylinder, 200 bar | none | 0 | 200
airline | airline | Airline with belt valve | none | 0 |
suit-gas | gas-tight-suit | Gas-tight suit, worn over the set | none | 0 |
suit-vent | ventilated-suit | Ventilated suit | none | 0 |
escape-air | escape-set | Escape set with compressed air, 200 bar | none | 0 | 200
escape-filter | escape-set | Escape hood with a filter | hood | 1 |
cylinder-300 | cylinder | Composite cylinder, 300 bar | none | 0 | 300
cylinder-200 | cylinder | Steel cylinder, 200 bar | none | 0 | 200
`;

/** Published: 29 CFR 1910.134 app. B-2, wash at 43 °C at most, chlorine or iodine; quaternary ammonium by common practice. */
const WASHED: ModelCard = { washMaxC: 43, agents: ['chlorine', 'iodine', 'quaternary ammonium'] };
/** What has a card of its own. Whistle: published, EN 137; flow: published, 42 CFR 84; the rest common practice; all from memory. */
const CARDS: Record<string, ModelCard> = {
	'ba-set': {
		whistleFromBar: 50,
		whistleToBar: 60,
		keepDry: ['reducer', 'gauge', 'whistle', 'demand', 'distress'],
		agents: ['wipes without bleach']
	},
	'powered-blower': {
		blowerLPerMin: 170,
		keepDry: ['filter', 'blower', 'battery', 'alarm'],
		agents: ['wipes without bleach']
	}
};

export const MODEL_TEMPLATES: readonly ModelTemplate[] = textTable(TABLE).map((row) => ({
	key: row.key ?? '',
	family: row.family ?? '',
	name: row.name ?? '',
	mount: row.mount ?? 'none',
	filterCount: Number(row.filters),
	ratedBar: row.bar ? Number(row.bar) : null,
	card: CARDS[row.family ?? ''] ?? (recordOf(row.family ?? '').washed ? WASHED : {})
}));
