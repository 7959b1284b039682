import type { Where } from '../custody/custody.ts';

/** One stage of the way from return to ready. */
export interface CareStage {
	/** Where an item waits for it. */
	at: Where;
	/** What is done there, in the order of the hands. */
	does: string;
	/** Only where its test on the bench is due. */
	whenBenchDue?: true;
}

/** How a family goes from return to ready. */
export interface CareRoute {
	family: string;
	/** How its outside is cleaned. */
	cleaned: 'bath' | 'wiped' | 'decontaminated';
	/** From where it waits dirty to the last before its shelf. */
	stages: readonly CareStage[];
	/** What is looked at before it goes back to its shelf, each with the station and the codes of what can be wrong. */
	looks: readonly CareLook[];
	/** It is worn once: what was used goes no further. */
	once?: true;
}

/** One thing that is looked at after cleaning. */
export interface CareLook {
	station: string;
	text: string;
	codes: readonly string[];
}

const look = (station: string, text: string, codes: string): CareLook => ({
	station,
	text,
	codes: codes.split(' ')
});

const EDGE = look('facepiece', 'Edge whole, soft and clean', 'TEAR CRK DIST STICKY DIRTY');
const DISC = look(
	'exhalation',
	'Exhalation disc flat on a clean seat, cover clicked',
	'CURL SEAT MISS DIRTY'
);
const HARNESS = look('harness', 'Straps return, buckles hold', 'ELAS BUCK CUT');
const LENS = look('lens', 'Lens clear, inside renewed against mist', 'SCR CRK BOND');

const STRIP: CareStage = {
	at: 'returned',
	does: 'Filters off, never washed. Inner cup and valves out.'
};
const BATH: CareStage = { at: 'wash', does: 'Wash, rinse, disinfect, rinse thoroughly.' };
const DRY: CareStage = {
	at: 'drying',
	does: 'Dry at room air or in the cabinet, discs laid flat. Then look, put together, filters or bag.'
};
const BENCH: CareStage = { at: 'bench', does: 'Pressure bench.', whenBenchDue: true };

/** The route of every family. Common practice; the maker’s card comes first. */
export const CARE_ROUTES: readonly CareRoute[] = [
	{
		family: 'half-mask',
		cleaned: 'bath',
		stages: [STRIP, BATH, DRY],
		looks: [
			look('inhalation-left', 'Both inhalation discs flat and in place', 'CURL SEAT MISS'),
			DISC,
			EDGE,
			HARNESS,
			look('filter-left', 'Filters back on to the stop, or mask bagged without', 'MIX DATE OPEN')
		]
	},
	{
		family: 'full-face',
		cleaned: 'bath',
		stages: [STRIP, BATH, DRY, BENCH],
		looks: [
			look('cup', 'Inner cup seated, its discs flat', 'CUP CURL MISS'),
			DISC,
			EDGE,
			LENS,
			HARNESS
		]
	},
	{
		family: 'canister-mask',
		cleaned: 'bath',
		stages: [{ ...STRIP, does: 'Canister off, plugged. Inner cup and valves out.' }, BATH, DRY],
		looks: [look('hose', 'Hose dry inside, no crack', 'CUT HOSE WET'), DISC, EDGE, LENS, HARNESS]
	},
	{
		family: 'powered-blower',
		cleaned: 'wiped',
		stages: [
			{
				at: 'returned',
				does: 'Wipe blower, hose and belt; never immersed. Battery to its charger.'
			}
		],
		looks: [
			look('filter', 'Filters dry, whole, in date', 'CLOG WET DATE'),
			look('battery', 'Battery charged', 'BATT RUST'),
			look('hood', 'Hood and hose clean and whole', 'SCR TEAR DIRTY')
		]
	},
	{
		family: 'ba-set',
		cleaned: 'wiped',
		stages: [
			{
				at: 'returned',
				does: 'Closing down: reset, shut, vent, distress unit off, straps out. Wipe; never immersed.'
			},
			BENCH
		],
		looks: [
			look('harness', 'All straps fully out', 'EXT CUT BUCK'),
			look('distress', 'Distress unit off', 'ALRM BATT'),
			look('frame', 'Frame and pneumatics wiped and dry', 'DIRTY')
		]
	},
	{
		family: 'airline',
		cleaned: 'wiped',
		stages: [{ at: 'returned', does: 'Wipe hose and facepiece; couplings capped; hose coiled.' }],
		looks: [
			look('hose', 'Hose whole, coiled without a kink', 'HOSE CUT'),
			look('regulator', 'Regulator and couplings clean', 'COUP DIRTY')
		]
	},
	{
		family: 'gas-tight-suit',
		cleaned: 'decontaminated',
		stages: [
			{
				at: 'returned',
				does: 'Decontaminated outside first. Opened by two, never bare-handed.'
			},
			BATH,
			{ at: 'drying', does: 'Dry hung, inside and outside. Then look at all of it.' },
			{ at: 'bench', does: 'Pressure test after every use, then bag with the zip half open.' }
		],
		looks: [
			look('zip', 'Zip round, clean, waxed', 'ZIPV WAX'),
			look('visor', 'Visor clear', 'SCR CRK'),
			look('gloves-left', 'Gloves whole, pins in', 'HOLE GLOVE PIN'),
			look('boots', 'Boots whole, profile left', 'BOOT HOLE'),
			look('exhaust', 'Exhaust valves free and clean', 'SEAT CURL DIRTY')
		]
	},
	{
		family: 'ventilated-suit',
		cleaned: 'decontaminated',
		stages: [
			{ at: 'returned', does: 'Dust off outside first, vacuumed or washed down.' },
			BATH,
			{ at: 'drying', does: 'Dry hung. Then look at all of it.' }
		],
		looks: [
			look('hood', 'Hood and visor clear', 'SCR SEAM CRK'),
			look('body', 'No hole, seams closed', 'HOLE SEAM'),
			look('gloves', 'Gloves whole', 'HOLE GLOVE')
		]
	},
	{
		family: 'escape-set',
		cleaned: 'wiped',
		once: true,
		stages: [{ at: 'returned', does: 'Used once: it is exchanged, not cleaned.' }],
		looks: [look('seal', 'Seal whole', 'SEALB')]
	},
	{
		family: 'cylinder',
		cleaned: 'wiped',
		stages: [{ at: 'filling', does: 'Wipe; look at it; fill.' }],
		looks: []
	},
	{
		family: 'opened-filter',
		cleaned: 'wiped',
		stages: [],
		looks: []
	}
];

/** The route of a family; one that is not known is wiped and looked at. */
export const routeOf = (family: string): CareRoute =>
	CARE_ROUTES.find((route) => route.family === family) ?? {
		family,
		cleaned: 'wiped',
		stages: [{ at: 'returned', does: 'Wipe it and look at it.' }],
		looks: []
	};

/** Where an item goes after a stage of its route: the next, or its shelf. */
export function nextAfter(family: string, at: Where, benchDue: boolean): Where {
	const asked = routeOf(family).stages.filter((stage) => !stage.whenBenchDue || benchDue);
	const here = asked.findIndex((stage) => stage.at === at);
	return asked[here + 1]?.at ?? 'shelf';
}

/** Where a family waits first when it comes back used. */
export const firstStage = (family: string): Where => routeOf(family).stages[0]?.at ?? 'returned';

/** What is done with a family where it waits; undefined: it does not wait there. */
export const stageAt = (family: string, at: Where): CareStage | undefined =>
	routeOf(family).stages.find((stage) => stage.at === at);
