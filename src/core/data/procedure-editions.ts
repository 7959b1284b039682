import { commonPractice } from '../verdict.ts';
import type { Procedure, ReadingRule } from '../inspection/procedure.ts';
import { MORE_PROCEDURES } from './procedure-tables.ts';
import { amended } from './procedure-text.ts';

const inlet: ReadingRule = { kind: 'inlet', label: 'At the rig', unit: 'bar', code: 'BAND' };

type Side = 'left' | 'right';

const refit = (side: Side) => `
key | station | title | action | good | rejects | kind | why
refit-${side} | gasket-${side} | Filter back on, ${side} | Marks aligned, a quarter turn clockwise to the stop, not past it; or pressed into its groove all round. | At the stop, marks in line, no play. | LUG GASK REV MISS | feel | A filter one notch short of its stop leaves a gap that nobody sees.
`;
const REFIT = { 'gasket-left': refit('left'), 'gasket-right': refit('right') };

const cuff = (side: Side) => `
key | station | title | action | good | rejects | kind | why
cuff-${side} | gloves-${side} | Cuff folded in, grease wiped, ${side} | Fold the cuff back in; close the ring; wipe surplus grease; pin in until it clicks. | No fold out, no grease outside, pin clicked. | PIN ORNG DIRTY | feel | A cuff that looks out is caught and torn; grease outside draws grit.
`;

const SEAL = `
key | station | title | action | good | rejects | kind | why
seal-check | facepiece | Seal check, or the bench | Block the inlets and breathe in, or cover the outlet and breathe out, as this model allows; or test it on the bench. | It pulls in or lifts, and holds; no air at the edge. | SEALF LEAK | feel | It proves what looking cannot. It is no fit test.
`;

/** Half mask: the filters go back on, and a mask ends with a seal check or the bench. */
export const halfMaskSecond = (first: Procedure): Procedure =>
	amended(first, {
		version: 2,
		after: { ...REFIT, 'bag-state': SEAL },
		absent: ['filter-left', 'filter-right', 'refit-left', 'refit-right']
	});

const first = (key: string): Procedure => {
	const found = MORE_PROCEDURES.find((one) => one.key === key && one.version === 1);
	if (!found) throw new RangeError(`No first version of ${key}.`);
	return found;
};

const BA_MORE = {
	version: 2,
	instead: {
		'cyl-fill': `
key | station | title | action | good | rejects | kind | why
cyl-fill | cylinder | Cylinder: pressure, valve open | Open the valve, read the gauge of the set, close it again. | 90 % of the rated pressure or more. | FILL GAUGE | reading | A gauge behind a closed valve shows what is left in the hose, not in the cylinder.
`
	},
	after: {
		straps: `
key | station | title | action | good | rejects | kind | why
hp-line | gauge | High-pressure line along its length | Run it through the hand, bend it gently. | Not chafed, cut or blistered. | HOSE CUT CRK | feel | It carries three hundred bar past the ear.
mp-hose | coupling | Medium-pressure hose and coupling | Run it through the hand; try to uncouple with one action only. | Whole; it lets go by its double action alone. | CUT HOSE COUP | feel | A coupling that opens to one push opens in a doorway.
`,
		hold: `
key | station | title | action | good | rejects | kind | why
bypass | demand | Bypass | Open the bypass, close it. | It blows when open and is quiet when shut. | FREE DEMD | feel | It is the way round a demand valve that sticks.
`
	},
	readings: {
		'cyl-fill': { kind: 'fill', label: 'Gauge', unit: 'bar', code: 'FILL' } as const
	}
};

/** The same list for every school. */
function withoutSchool({ school: _, ...rest }: Procedure): Procedure {
	return rest;
}

/** Second versions of the lists: the parts that the first ones passed over. Common practice. */
export const SECOND_EDITIONS: readonly Procedure[] = [
	amended(first('full-face-pre-use'), {
		version: 2,
		absent: ['refit-left', 'refit-right'],
		after: {
			'filter-right': `
key | station | title | action | good | rejects | kind | why | sides | if fitted
window | filter | Indicator window | Compare the window with the codes on its label. | No code shown, colour as new. | IND | look | The window speaks once, and only to who knows its codes. | both | yes
`,
			...REFIT,
			cup: `
key | station | title | action | good | rejects | kind | why | sides | if fitted
deflectors | cup | Deflectors | Look inside at both. | There, in their clips. | MISS LOOSE | look | Without them the lens fogs. | | yes
`,
			lens: `
key | station | title | action | good | rejects | kind | why | sides | if fitted
outsert | lens | Outsert and its pouch | Look through it; look into the pouch. | Clear, clips whole, pouch clean. | SCR CRK MISS DIRTY | look | A scratched outsert is looked through all day. | | yes
`,
			cover: `
key | station | title | action | good | rejects | kind | why | sides | if fitted
port-cover | cover | Port cover and baffle | Press both. | There, seated. | MISS CLICK CRK | feel | An open port is an open mask. | | yes
`,
			harness: `
key | station | title | action | good | rejects | kind | why | sides | if fitted
drink-arrow | drink | Drink coupler: seals and arrow | Look at both seals of the coupler; arrow and mark in line. | Seals whole, arrow in line. | DRINK ORNG MISS | look | A coupler out of line leaks into the mask. | | yes
`,
			label: `
key | station | title | action | good | rejects | kind | why
kit-count | carrier | Kit counted | Count what belongs to the kit against its card. | All there. | CARD MISS | confirm | What is missing is missed in the field.
${SEAL.trim().split('\n').slice(1).join('\n')}
`
		}
	}),
	amended(first('canister-mask-pre-use'), {
		version: 2,
		absent: ['canister', 'plug', 'canister-body', 'canister-thread'],
		after: {
			canister: `
key | station | title | action | good | rejects | kind | why | if fitted
plug | canister | Plug and tape off the inlet | Look at the bottom of the canister. | Plug and tape are off, inlet free. | CLOG | look | A canister with its plug in gives no air at all. |
canister-body | canister | Canister: wet, holes, seams | Turn it, look at the seams, shake it. | Dry, no hole, seams closed, no rattle. | WET HOLE SEAM RATTLE | feel | A punctured or wet canister lets everything by. |
canister-thread | canister | Thread and its seal | Unscrew it; look at thread and seal; screw it home by hand. | Thread whole, seal there and soft, tight by hand. | LUG GASK MISS | feel | Without its seal the air goes round the canister. |
clip | canister | Canister clip or carrier | Pull at it. | Holds. | LOOSE CRK MISS | feel | A swinging canister unscrews itself. | yes
`,
			body: `
key | station | title | action | good | rejects | kind | why | if fitted
diaphragm | facepiece | Speech diaphragm | Turn its ring; look at the foil. | Tight, foil whole. | LOOSE TEAR MISS | feel | It is the thinnest wall in the mask. | yes
`,
			label: SEAL
		}
	}),
	amended(first('ba-set-bench'), BA_MORE),
	amended(first('ba-set-worn'), BA_MORE),
	amended(first('airline-pre-use'), {
		version: 2,
		instead: {
			alarm: `
key | station | title | action | good | rejects | kind | why
alarm | alarm | CO alarm with test gas | Give it test gas; read at what it sounds. | It sounds at 10 ppm or below. | ALRM BATT | feel | A lamp that lights when pressed proves the lamp.
`,
			regulator: `
key | station | title | action | good | rejects | kind | why
regulator | regulator | Inlet pressure | Read it with all wearers breathing. | Within the band of the approval. | BAND GAUGE | reading | Below the band the last wearer starves.
`
		},
		after: {
			facepiece: `
key | station | title | action | good | rejects | kind | why
flow | facepiece | Flow at the facepiece | Hold the flow indicator at the hood, or breathe hard at the mask, all others breathing too. | At or above the mark; no pull felt. | FLOW FREE | feel | It is the air that the wearer gets, not the air that was sent.
`
		},
		readings: { regulator: inlet }
	}),
	amended(first('gas-tight-suit-visual'), {
		version: 2,
		after: {
			'': `
key | station | title | action | good | rejects | kind | why
table | bag | Clean table, suit unfolded | Wipe the table; lay the suit out, unfolded, front up. | Nothing sharp or dirty under it. | DIRTY | confirm | A grain of grit under a knee is a hole.
`,
			'rings-left': cuff('left'),
			'rings-right': cuff('right'),
			boots: `
key | station | title | action | good | rejects | kind | why
soles | boots | Soles | Look at the profile of both. | Profile left everywhere; not worn through it. | BOOT HOLE | look | A sole worn past its profile is out: on a wet deck it goes first.
`
		}
	}),
	amended(first('powered-blower-pre-use'), {
		version: 2,
		absent: ['filter'],
		after: {
			'': `
key | station | title | action | good | rejects | kind | why
indicator-first | indicator | The indicator itself, first | Tip it; look at ball and mark; compare with another where in doubt. | Ball runs free, mark readable. | FLOW LABEL | feel | A stuck ball passes every blower after it.
`
		}
	}),
	amended(first('ventilated-suit-visual'), {
		version: 2,
		after: {
			label: `
key | station | title | action | good | rejects | kind | why
airflow | hood | Airflow at the hood | Connect the air; hold its indicator in the hood. | At or above the mark. | FLOW CLOG | feel | The zip is not closed on anybody before the air runs.
alarm | pass | Alarm, before the zip | Throttle the air. | It sounds. | ALRM | feel | Nobody inside hears the air stop.
`
		}
	})
];

/** The second edition of the bench school with the medium pressure, once a year. */
const BA_DEEP: Procedure = {
	...amended(SECOND_EDITIONS.find(({ key }) => key === 'ba-set-bench') ?? first('ba-set-bench'), {
		version: 1,
		after: {
			hold: `
key | station | title | action | good | rejects | kind | why
medium | reducer | Medium pressure at rest | Gauge on the medium-pressure port, cylinder open, nothing flowing. Note it. | Within the band of the model. | BAND | reading | Too low starves the demand valve, too high makes it run free.
creep | reducer | Creep of the reducer | Wait a minute, look at the same gauge again. | It has not climbed. | BAND LEAK | look | A seat that leaks climbs until the relief valve opens.
`
		},
		readings: {
			medium: { kind: 'medium', label: 'Medium pressure', unit: 'bar', code: 'BAND' }
		}
	}),
	key: 'ba-set-deep',
	name: 'BA set, yearly on the bench',
	levels: ['yearly deep'],
	origin: commonPractice(
		'demand valve and reducer are tried on the bench yearly; the maker comes first'
	)
};

/** Lists of the yearly look that grew out of the usual ones. */
export const DEEP_EDITIONS: readonly Procedure[] = [withoutSchool(BA_DEEP)];
