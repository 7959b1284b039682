import type { Job } from '../../../core/people/competence.ts';
import type { FaceChange } from '../../../core/people/fit-standing.ts';

/** Sixty people who wear equipment, invented. The first six go in with breathing apparatus. */
export const WEARER_NAMES = `
Runa Holt, Jory Pell, Sten Arvik, Ansa Brevik, Tam Oakes, Lio Varn, Perrin Vale, Mira Stoll, Edda Ravn, Kaj Lindow,
Oona Fisk, Pell Harrow, Siv Tarn, Arno Keld, Brita Moss, Dag Ferrow, Elin Vass, Finn Garrow, Gerda Holm, Hauk Stray,
Inga Thorl, Jens Marrow, Kari Løne, Lars Quill, Maren Dove, Nils Farrer, Olga Stenn, Peer Hallow, Ragna Teal, Sverre Fenn,
Tilda Crane, Ulf Barrow, Vera Skarn, Wim Aldous, Ylva Reef, Zeno Marsh, Aslak Wren, Borghild Thane, Corin Sley, Dorte Hask,
Eskil Pryor, Frida Loam, Gorm Tansy, Hedda Kvist, Ivar Sorrel, Jorun Bly, Ketil Ashe, Liv Pardow, Magne Toll, Nanna Yarrow,
Orm Delling, Petra Skene, Rolf Ember, Signe Harl, Tore Lathe, Unni Corve, Viggo Sandel, Wenche Ide, Yngve Croft, Åse Merrow
`
	.trim()
	.split(/\s*,\s*/);

export type FaceSize = 'S' | 'M' | 'L';

/** What sets somebody apart from the rest, by their place in the list. */
export interface DemoWearer {
	face?: FaceSize;
	beard?: boolean;
	eyewear?: boolean;
	/** Account of the demo. */
	account?: string;
	/** Days until clearance and training end; below zero: ended. */
	clearedDays?: number;
	trainedDays?: number;
	/** Days since the last test. */
	testedDays?: number;
	/** Reported so many days ago. */
	changed?: { what: FaceChange; days: number };
	/** A name that was typed on the board for them. */
	typedAs?: string;
	/** Never tested. */
	untested?: boolean;
}

export const SPECIAL: Readonly<Record<number, DemoWearer>> = {
	// The six of the board.
	3: { face: 'S' },
	// Looks after their own test on a phone.
	6: { account: 'vale', face: 'M' },
	// Small faces: one mask fits few of them.
	8: { face: 'S' },
	12: { face: 'S' },
	16: { face: 'S', eyewear: true },
	18: { face: 'S' },
	// The beard that stays.
	23: { beard: true },
	// Lapsed, and nobody renewed it.
	27: { testedDays: 380 },
	// Due within the week.
	30: { testedDays: 361 },
	// Lost a lot of weight.
	34: { changed: { what: 'weight', days: 3 } },
	38: { face: 'S', eyewear: true },
	41: { clearedDays: 9 },
	44: { clearedDays: -6 },
	47: { trainedDays: 12 },
	52: { untested: true }
};

/** Masks as they are tried, and how well each fits a face of its size and of another: share of the pass level in the middle. */
export const FITS: Readonly<Record<string, { sizes: FaceSize[]; own: number; other: number }>> = {
	'Tesselow H1': { sizes: ['S', 'M', 'L'], own: 2.7, other: 1.1 },
	'Tesselow H2 soft': { sizes: ['S', 'M', 'L'], own: 3.4, other: 1.5 },
	'Brannick Duo': { sizes: ['M', 'L'], own: 2.3, other: 0.4 },
	'Tesselow F3': { sizes: ['S', 'M', 'L'], own: 2.6, other: 0.8 }
};

/** Who may do what: person, jobs, days since given, days until it ends (null: open), evidence. */
export const AUTHORISED: readonly [
	person: string,
	jobs: Job[],
	sinceDays: number,
	untilDays: number | null,
	evidence: string
][] = [
	[
		'ilse',
		['inspect', 'wash', 'repair', 'fill cylinders', 'fit-test'],
		700,
		null,
		'Course for equipment technicians, two weeks'
	],
	[
		'ilse',
		['repair of demand valves and reducers'],
		340,
		390,
		'Course of the maker of the sets, certificate 4471'
	],
	[
		'odd',
		['inspect', 'wash', 'repair', 'fill cylinders', 'fit-test'],
		520,
		null,
		'Course for equipment technicians, two weeks'
	],
	[
		'odd',
		['repair of demand valves and reducers'],
		750,
		-20,
		'Course of the maker of the sets, certificate 4102'
	],
	[
		'tove',
		['inspect', 'wash', 'repair', 'fill cylinders', 'fit-test', 'release', 'approve plans'],
		900,
		null,
		'Site appointment'
	],
	[
		'bram',
		['inspect', 'wash', 'repair', 'fill cylinders', 'release', 'approve plans'],
		900,
		null,
		'Site appointment'
	],
	['bram', ['fit-test'], 353, 12, 'Day course on fit testing'],
	[
		'maud',
		['inspect', 'wash', 'repair', 'fill cylinders', 'fit-test', 'release', 'approve plans'],
		900,
		null,
		'Site appointment'
	]
];
