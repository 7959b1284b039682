import type { Level, Procedure, Step } from '../inspection/procedure.ts';
import { CLOSINGS } from './procedure-closing.ts';
import { DEEP_EDITIONS, halfMaskSecond, SECOND_EDITIONS } from './procedure-editions.ts';
import { LOOKS } from './procedure-looks.ts';
import { MORE_PROCEDURES } from './procedure-tables.ts';
import { commonPractice, published } from '../verdict.ts';

/** The same step on both sides, left first. */
function bothSides(step: Omit<Step, 'key'> & { key: string }): Step[] {
	return ['left', 'right'].map((side) => ({
		...step,
		key: `${step.key}-${side}`,
		station: `${step.station}-${side}`,
		title: `${step.title}, ${side}`
	}));
}

/** Pre-use inspection of a negative-pressure half mask, along the air. */
const HALF_MASK_PRE_USE: Procedure = {
	key: 'half-mask-pre-use',
	version: 1,
	name: 'Half mask, before and after use',
	family: 'half-mask',
	origin: published('29 CFR 1910.134(h)(3), what is inspected; order by common practice'),
	steps: [
		...bothSides({
			key: 'prefilter',
			station: 'prefilter',
			title: 'Pre-filter and retainer',
			action: 'Look at the pre-filter and press its retainer or adapter.',
			good: 'Whole and clean, printed side away from the wearer, clicked home front and back.',
			rejects: ['CLOG', 'REV', 'CRK', 'ONCE'],
			kind: 'look',
			why: 'A coarse pre-filter worn alone is no filter; a one-time adapter does not seal twice.',
			ifFitted: true
		}),
		...bothSides({
			key: 'filter',
			station: 'filter',
			title: 'Filter: date, pair, body',
			action: 'Read date and initials. Turn the filter round, shake it gently.',
			good: 'In date, dated and initialled, same type and class as its twin, no dent, no rattle.',
			rejects: ['DATE', 'OPEN', 'MIX', 'RATTLE', 'DENT', 'RUST', 'CLOG'],
			kind: 'look',
			why: 'An unequal or old filter lets the vapour through on one side first.'
		}),
		...bothSides({
			key: 'gasket',
			station: 'gasket',
			title: 'Gasket under the lugs',
			action: 'Take the filter off. Look under every lug, run a finger round.',
			good: 'Gasket there, whole, soft, flat all round. Lugs sharp.',
			rejects: ['GASK', 'MISS', 'LUG', 'DIRTY'],
			kind: 'look',
			why: 'The gasket comes off with the filter and is easily lost.'
		}),
		...bothSides({
			key: 'inhalation',
			station: 'inhalation',
			title: 'Inhalation disc',
			action: 'Look inside. Turn the disc on its post with a fingertip.',
			good: 'Flat, soft, turns freely. No crease, curl or dirt.',
			rejects: ['CURL', 'SEAT', 'TEAR', 'MISS', 'DIRTY', 'DUST', 'AGE'],
			kind: 'look',
			why: 'A disc that dried crumpled lets moist breath into the filter.'
		}),
		{
			key: 'facepiece-body',
			station: 'facepiece',
			title: 'Facepiece: stretch and look',
			action: 'Stretch the rubber gently, all round, in good light.',
			good: 'Soft, keeps its shape, no cracks that open when stretched.',
			rejects: ['CRK', 'TEAR', 'DIST', 'STIFF', 'STICKY', 'AGE'],
			kind: 'feel',
			why: 'Solvent, heat and sun ruin rubber from inside; the crack shows only when stretched.'
		},
		{
			key: 'facepiece-edge',
			station: 'facepiece',
			title: 'Sealing edge',
			action: 'Run a clean finger round the sealing edge.',
			good: 'Clean, smooth, no nick, no residue.',
			rejects: ['DIRTY', 'TEAR', 'DIST', 'STICKY'],
			kind: 'feel',
			why: 'What lies on the edge lies between the mask and the face.'
		},
		{
			key: 'exhalation-disc',
			station: 'exhalation',
			title: 'Exhalation disc and seat',
			action: 'Take the cover off. Lift the disc, look at the seat behind it, let it fall back.',
			good: 'Disc flat and soft, falls back by itself. Seat clean all round.',
			rejects: ['CURL', 'SEAT', 'TEAR', 'STIFF', 'DIRTY', 'DUST', 'AGE'],
			kind: 'look',
			why: 'The one valve that opens straight to the outside air: a hair on the seat is a leak.'
		},
		{
			key: 'cover-click',
			station: 'cover',
			title: 'Valve cover back on',
			action: 'Press the cover on. Pull at it.',
			good: 'It clicks and stays.',
			rejects: ['CLICK', 'MISS', 'CRK'],
			kind: 'feel',
			why: 'Without its cover the disc is bent by the first touch.'
		},
		{
			key: 'harness-straps',
			station: 'harness',
			title: 'Straps, buckles, cradle',
			action: 'Stretch each strap and let go. Pull each buckle hard.',
			good: 'Straps return, no cuts, buckles hold, cradle whole, straps in their channels.',
			rejects: ['ELAS', 'BUCK', 'CUT', 'CHAN', 'CRK'],
			kind: 'feel',
			why: 'A strap that gives loosens the seal while nobody looks.'
		},
		{
			key: 'label-read',
			station: 'label',
			title: 'Clean, dry, label readable',
			action: 'Read the tag against the screen. Look over all plastic parts.',
			good: 'This tag, readable. Clean, dry, nothing cracked.',
			rejects: ['LABEL', 'DIRTY', 'WET', 'CRK'],
			kind: 'confirm',
			why: 'A record counts only for the mask that it was written for.'
		},
		{
			key: 'bag-state',
			station: 'bag',
			title: 'Bag or box',
			action: 'Look inside the bag. Nothing else is kept in it.',
			good: 'Clean, dry, closes, mask lies without being pressed.',
			rejects: ['BAG', 'DIRTY', 'WET'],
			kind: 'look',
			why: 'A mask stored crushed takes that shape.'
		}
	]
};

/** Every version that a record may name. */
export const PROCEDURES: readonly Procedure[] = [
	HALF_MASK_PRE_USE,
	halfMaskSecond(HALF_MASK_PRE_USE),
	...MORE_PROCEDURES,
	...SECOND_EDITIONS,
	...DEEP_EDITIONS,
	...LOOKS,
	...CLOSINGS
];

/** Shortest plausible time for one step, s. Common practice. */
export const PLAUSIBLE_STEP_S = 2;
export const PLAUSIBLE_STEP_ORIGIN = commonPractice();

/** The levels that a shipped list is walked at, whatever its version; of one that is not shipped, or the usual one, none. */
export const levelsOf = (key: string): readonly Level[] =>
	PROCEDURES.find((p) => p.key === key)?.levels ?? [];

/** The newest version of every procedure of a family, the usual one first. */
export function proceduresOf(family: string, all: readonly Procedure[] = PROCEDURES): Procedure[] {
	const keys = [...new Set(all.filter((p) => p.family === family).map((p) => p.key))];
	return keys.flatMap((key) => {
		const versions = all.filter((p) => p.key === key);
		return versions.sort((a, b) => b.version - a.version)[0] ?? [];
	});
}

/** The newest procedure of a family, of a school where it has several. Throws RangeError when it has none. */
export function procedureFor(family: string, school?: string): Procedure {
	const found = proceduresOf(family).filter((p) => !school || p.school === school);
	if (!found[0]) throw new RangeError(`No procedure for ${family}.`);
	return found[0];
}
