import type { PlaceKind, StorageTrait, TestHouseWork } from '../../../core/site/places.ts';
import { findSubstance } from '../../../core/data/substances.ts';
import {
	type ContaminantFact,
	DEFAULT_FACTS,
	type HazardFacts
} from '../../../core/hazards/facts.ts';
import type { Role } from '../kernel/permissions.ts';

/** The invented site of the demo. People, makers, models and tags are invented. */
export const SITE_NAME = 'Osmund Sound Harbour Works';

export interface DemoPerson {
	key: string;
	/** Code of their personal card. */
	card: string;
	name: string;
	initials: string;
	email: string;
	role: Role;
}

export const PEOPLE: readonly DemoPerson[] = [
	{
		key: 'ilse',
		card: 'GC-QK7MTR4WXB',
		name: 'Ilse Norrby',
		initials: 'IN',
		email: 'ilse@osmund.example',
		role: 'technician'
	},
	{
		key: 'odd',
		card: 'GC-H3VZP9ECNA',
		name: 'Odd Kessmer',
		initials: 'OK',
		email: 'odd@osmund.example',
		role: 'technician'
	},
	{
		key: 'tove',
		card: 'GC-8FLYD2SJKU',
		name: 'Tove Rieveld',
		initials: 'TR',
		email: 'tove@osmund.example',
		role: 'supervisor'
	},
	{
		key: 'bram',
		card: 'GC-N6WQA5TGHR',
		name: 'Bram Estelin',
		initials: 'BE',
		email: 'bram@osmund.example',
		role: 'supervisor'
	},
	{
		key: 'vale',
		card: 'GC-C4XBJ7MPZE',
		name: 'Perrin Vale',
		initials: 'PV',
		email: 'perrin@osmund.example',
		role: 'viewer'
	},
	{
		key: 'maud',
		card: 'GC-V9RSK3DYFL',
		name: 'Maud Anderlin',
		initials: 'MA',
		email: 'maud@osmund.example',
		role: 'admin'
	}
];

type PlaceKey = 'ice' | 'dryer' | 'shed' | 'water' | 'quay' | 'tanks';

/** Days on which nobody works, by how far ahead they are. */
export const HOLIDAYS = [
	[26, 'Harbour feast'],
	[35, 'New Year']
] as const;

/** Where things are sent for testing. */
export const TEST_HOUSES = [
	{ name: 'Fellmark Cylinder Works', takes: ['cylinders'], turnaroundDays: 18 },
	{ name: 'Low Quay Instruments', takes: ['sets', 'instruments'], turnaroundDays: 30 }
] satisfies { name: string; takes: TestHouseWork[]; turnaroundDays: number }[];

/** Places: what they are, how things are kept there, and how many of each kind stay ready. */
interface DemoPlace {
	key: PlaceKey;
	/** Who answers for it. */
	keeper: string;
	name: string;
	is: { kind?: PlaceKind; storage: StorageTrait[] };
	floors: Record<string, number>;
}
export const PLACES: readonly [DemoPlace, ...DemoPlace[]] = [
	{
		key: 'ice',
		keeper: 'odd',
		name: 'Ice plant and cold store',
		is: { storage: ['clean', 'cool', 'dark', 'dry', 'shut'] },
		floors: { 'half-mask': 9, 'full-face': 2, 'gas-tight-suit': 1, 'escape-set': 4, 'ba-set': 1 }
	},
	{
		key: 'dryer',
		keeper: 'ilse',
		name: 'Fish-meal dryer',
		is: { storage: ['clean', 'dry', 'shut'] },
		floors: { 'half-mask': 8, 'full-face': 3, 'ba-set': 1, 'escape-set': 4 }
	},
	{
		key: 'shed',
		keeper: 'odd',
		name: 'Boat shed',
		is: { storage: ['clean', 'dark', 'dry'] },
		floors: { 'half-mask': 12, 'full-face': 2, 'powered-blower': 2 }
	},
	{
		key: 'water',
		keeper: 'ilse',
		name: 'Water works',
		is: { storage: ['clean', 'cool', 'dry', 'shut'] },
		floors: { 'half-mask': 5, 'full-face': 2, 'gas-tight-suit': 1, 'ba-set': 2 }
	},
	{
		key: 'quay',
		keeper: 'tove',
		name: 'Grain quay',
		is: { storage: ['clean', 'dry'] },
		floors: { 'half-mask': 8, 'full-face': 2, 'escape-set': 5 }
	},
	{
		key: 'tanks',
		keeper: 'tove',
		name: 'Tank-cleaning crew',
		is: { kind: 'vehicle', storage: ['dry', 'shut'] },
		floors: { 'half-mask': 4, 'ba-set': 2, 'escape-set': 5 }
	}
];

export const MASKS = [
	{
		key: 'h1',
		maker: 'Tesselow',
		name: 'Tesselow H1',
		mount: 'quarter turn',
		sizes: ['S', 'M', 'L']
	},
	{
		key: 'h2',
		maker: 'Tesselow',
		name: 'Tesselow H2 soft',
		mount: 'quarter turn',
		sizes: ['S', 'M', 'L']
	},
	{ key: 'duo', maker: 'Brannick', name: 'Brannick Duo', mount: 'press ring', sizes: ['M', 'L'] }
] as const;

const inAir = (key: string, value: number | null): ContaminantFact => {
	const substance = findSubstance(key);
	if (!substance) throw new RangeError(`The demo names an unknown substance: ${key}.`);
	return {
		substance: key,
		name: substance.name,
		form: substance.form,
		concentration:
			value === null
				? null
				: { value, unit: substance.limits.uk?.unit ?? substance.limits.us?.unit ?? 'ppm' }
	};
};

const task = (contaminants: ContaminantFact[], part: Partial<HazardFacts> = {}): HazardFacts => ({
	...DEFAULT_FACTS,
	ruleSet: 'uk',
	contaminants,
	...part
});

/** Hazard plans; concentrations are invented. */
export interface DemoPlan {
	key: string;
	task: string;
	place: string;
	facts: HazardFacts;
	/** Days since it was approved; left out: a draft. */
	approvedAgo?: number;
}

export const PLANS: readonly DemoPlan[] = [
	{
		key: 'laminate',
		approvedAgo: 40,
		task: 'Laminating, bay 2',
		place: 'shed',
		facts: task([inAir('styrene', 160)], {
			temperatureC: 22,
			relativeHumidityPercent: 61,
			exposureMin: 180
		})
	},
	{
		key: 'sanding',
		approvedAgo: 80,
		task: 'Sanding hull boards',
		place: 'shed',
		facts: task([inAir('glass-fibre-dust', 46)], { workRate: 'hard', exposureMin: 240 })
	},
	{
		key: 'spray',
		approvedAgo: 30,
		task: 'Two-pack spray, booth',
		place: 'shed',
		facts: task([inAir('hdi', 0.05), inAir('n-butyl-acetate', 80)])
	},
	{
		key: 'round',
		approvedAgo: 190,
		task: 'Compressor room round',
		place: 'ice',
		facts: task([inAir('ammonia', 30)], { temperatureC: 8, exposureMin: 60, workRate: 'light' })
	},
	{
		key: 'fumigation',
		approvedAgo: 60,
		task: 'Clearance after fumigation',
		place: 'quay',
		facts: task([inAir('phosphine', 0.3), inAir('grain-dust', 18)], { exposureMin: 90 })
	},
	{
		key: 'grain',
		approvedAgo: 100,
		task: 'Shovelling the grain pit',
		place: 'quay',
		facts: task([inAir('grain-dust', 34)], { workRate: 'hard', exposureMin: 120 })
	},
	{
		key: 'meal',
		approvedAgo: 25,
		task: 'Emptying the dryer cyclone',
		place: 'dryer',
		facts: task([inAir('general-dust', 65), inAir('hydrogen-sulphide', 3)], {
			temperatureC: 34,
			relativeHumidityPercent: 72,
			exposureMin: 120
		})
	},
	{
		key: 'leak',
		approvedAgo: 12,
		task: 'Ammonia leak, first entry',
		place: 'ice',
		facts: task([inAir('ammonia', 420)], { temperatureC: 2, workRate: 'heavy', exposureMin: 30 })
	},
	{
		key: 'drum',
		task: 'Chlorine drum change',
		place: 'water',
		facts: task([inAir('chlorine', 2)], { exposureMin: 30 })
	},
	{
		key: 'tank',
		approvedAgo: 380,
		task: 'Washing out tank 4',
		place: 'tanks',
		facts: task([inAir('hydrogen-sulphide', 2)], { oxygenPercent: 17.5, confinedSpace: true })
	}
];

/** Parts: days until the use-by date (null: none), pieces left. */
export const PART_LOTS = [
	{ part: 'disc-exhalation', lot: 'X-2207', days: 820, quantity: 14, location: 'Drawer 1' },
	{ part: 'disc-inhalation', lot: 'N-1180', days: 640, quantity: 22, location: 'Drawer 1' },
	{ part: 'gasket', lot: 'G-0561', days: 900, quantity: 30, location: 'Drawer 2' },
	{ part: 'harness', lot: 'S-3310', days: 1400, quantity: 6, location: 'Shelf 4' },
	{ part: 'valve-cover', lot: 'C-0078', days: null, quantity: 9, location: 'Drawer 3' }
] as const;
/** What stands beside them in the store. */
export const MORE_LOTS = [
	{ part: 'gasket', lot: 'G-0498', days: 41, quantity: 8, location: 'Drawer 2' },
	{ part: 'o-ring', lot: 'R-7702', days: -12, quantity: 20, location: 'Drawer 5' },
	{ part: 'wipes-no-bleach', lot: 'W-1126', days: 210, quantity: 3, location: 'Wash' },
	{ part: 'anti-fog', lot: 'F-0042', days: 380, quantity: 12, location: 'Wash' }
] as const;
/** Below how many of a part more is bought. */
export const PART_LEVELS = [
	{ part: 'disc-exhalation', reorderLevel: 10 },
	{ part: 'gasket', reorderLevel: 12 },
	{ part: 'o-ring', reorderLevel: 10 },
	{ part: 'wipes-no-bleach', reorderLevel: 6 }
] as const;
