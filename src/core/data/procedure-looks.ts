import type { Procedure } from '../inspection/procedure.ts';
import { commonPractice } from '../verdict.ts';
import { procedure } from './procedure-text.ts';

const HEAD = 'key | station | title | action | good | rejects | kind | why';
const LOOK = commonPractice('short look by the wearer, six steps at most; it proves no inspection');

/** One short look: the six things that a wearer sees and feels in half a minute. */
const look = (family: string, name: string, rows: string): Procedure =>
	procedure(
		{
			key: `${family}-look`,
			name: `${name}, short look`,
			family,
			purpose: 'look',
			levels: ['short look', 'weekly'],
			origin: LOOK
		},
		`${HEAD}\n${rows.trim()}`
	);

const label = (station = 'label') =>
	`label | ${station} | Mine, clean, dry | Read the tag. | This tag, clean, dry. | LABEL DIRTY WET | confirm | Another's mask was fitted to another face.`;

/** Short looks by the wearer, before each use or weekly. Common practice. */
export const LOOKS: readonly Procedure[] = [
	look(
		'half-mask',
		'Half mask',
		`
pair | filter-left | Both filters | Look at both: same kind, dated, home on their mounts. | A pair, in date, at the stop. | MIX DATE OPEN DENT RATTLE CLOG | look | An unequal pair lets it through on one side first.
inhalation | inhalation-left | Inhalation discs | Look inside at both. | Flat, not curled. | CURL SEAT MISS DIRTY | look | A curled disc lets breath into the filter.
edge | facepiece | Facepiece and edge | Stretch it; run a finger round. | Soft, whole, clean. | CRK TEAR DIST STICKY DIRTY | feel | What lies on the edge lies between mask and face.
exhalation | exhalation | Exhalation disc, cover on | Look through the cover. | Disc flat, cover clicked. | CURL SEAT MISS DIRTY | look | A hair on the seat is a leak.
harness | harness | Straps | Stretch them. | They return, buckles hold. | ELAS BUCK CUT | feel | A strap that gives loosens the seal.
${label()}`
	),
	look(
		'full-face',
		'Full-face mask',
		`
pair | filter-left | Filters or port | Look at both, or at the port. | A pair, in date, at the stop; port clean. | MIX DATE OPEN DENT RATTLE CLOG | look | An unequal pair lets it through on one side first.
lens | lens | Lens | Look through it. | Clear, whole. | SCR CRK BOND | look | Who cannot see takes it off.
edge | facepiece | Edge and inner cup | Finger round the edge; press the cup. | Soft, whole, clean, cup seated. | CRK TEAR DIST STICKY DIRTY | feel | A fold or a nick is a leak.
exhalation | exhalation | Exhalation disc, cover on | Look through the cover. | Disc flat, cover clicked. | CURL SEAT MISS DIRTY | look | A hair on the seat is a leak.
harness | harness | Straps, full length | Pull them out; stretch them. | They return, buckles hold. | ELAS BUCK CUT | feel | A strap that gives loosens the seal.
${label()}`
	),
	look(
		'canister-mask',
		'Canister mask',
		`
canister | canister | Canister | Date; shake it; plug and tape off. | In date, no rattle, inlet free. | DATE RATTLE DENT RUST CLOG | look | A canister with its plug in gives no air.
hose | hose | Hose | Stretch it. | No crack, rings tight. | CUT HOSE LOOSE | feel | It perishes between the folds.
edge | facepiece | Facepiece and edge | Finger round the edge. | Soft, whole, clean. | CRK TEAR DIST STICKY DIRTY | feel | A nick is a leak.
lens | lens | Lens | Look through it. | Clear, whole. | SCR CRK BOND | look | Who cannot see takes it off.
exhalation | exhalation | Exhalation disc, cover on | Look through the cover. | Disc flat, cover clicked. | CURL SEAT MISS DIRTY | look | A hair on the seat is a leak.
${label()}`
	),
	look(
		'powered-blower',
		'Powered blower',
		`
indicator | indicator | The indicator itself | Tip it. | Ball runs free. | FLOW LABEL | feel | A stuck ball passes everything.
filters | filter | Filters fitted | Look: a full set of one kind, in date. | All there, in date. | MIX DATE CLOG DENT | look | A blower pushes dirty air too.
flow | blower | Flow | Indicator on the hose, battery full. | At or above the mark. | FLOW CLOG | feel | Below the mark the hood breathes at its edge.
alarm | alarm | Alarm | Cover the intake. | It sounds. | ALRM BATT | feel | It is the only thing that tells.
hood | hood | Hood and hose | Look through; pull the hose. | Clear, seal whole, hose locked. | SCR CRK TEAR LOOSE | look | The edge keeps the flow inside.
${label()}`
	),
	look(
		'ba-set',
		'BA set',
		`
fill | cylinder | Gauge | Open, read, close. | 90 % or more. | FILL GAUGE | look | Minutes come from content.
hoses | coupling | Hoses and coupling | Pull at the coupling; look along. | Locked, whole. | COUP CUT HOSE | feel | It opens in a doorway or it does not.
straps | harness | Straps out | Look. | All fully out. | EXT CUT BUCK | look | A set put away pulled tight costs a minute.
mask | mask | Mask and lens | Look; palm on the port, breathe in. | Clear; it pulls in and holds. | SEALF CRK DIRTY | feel | The set is as tight as its mask.
distress | distress | Distress unit | Look at its light. | Wakes with the air. | ALRM BATT | look | It calls when nobody can.
${label()}`
	),
	look(
		'airline',
		'Airline rig',
		`
test | source | Air test in force | Read the tag at the source. | In force. | AIRT | confirm | Bad air reaches every wearer.
pressure | regulator | Inlet pressure | Read it. | In the band of the approval. | BAND GAUGE | look | Below it the last one starves.
alarm | alarm | CO alarm | Press the test. | It sounds. | ALRM BATT | feel | Carbon monoxide has no smell.
hose | hose | Hose and couplings | Look along it; pull. | No kink or cut; locked. | HOSE CUT COUP | look | A kink starves, a cut bursts.
flow | facepiece | Flow at the facepiece | Hold the indicator or breathe hard. | At or above the mark. | FREE SCR TEAR | feel | It is the air that arrives.
${label()}`
	),
	look(
		'gas-tight-suit',
		'Gas-tight suit',
		`
date | label | Pressure test in date | Read it. | In date. | DATE LABEL | confirm | The test is of this suit.
visor | visor | Visor | Look through. | Clear. | SCR CRK | look | The seam lifts first.
zip | zip | Zip | Bend the chain gently. | Round, no V. | ZIPV WAX | look | A V is a broken zip.
gloves | gloves-left | Gloves and rings | Blow up; look at the pins. | Whole, pins in. | HOLE GLOVE PIN | feel | Holes hide between the fingers.
boots | boots | Boots and soles | Look at joint and profile. | Whole, profile left. | BOOT HOLE | look | They stand in what is spilt.
exhaust | exhaust | Exhaust valves | Lift each. | Free, clean. | SEAT CURL DIRTY | look | Out for the air, and none in.`
	),
	look(
		'ventilated-suit',
		'Ventilated suit',
		`
visor | hood | Hood and visor | Look through. | Clear, seam closed. | SCR SEAM CRK | look | The seam lifts first.
body | body | Body and seams | Spread, look. | No hole. | HOLE SEAM | look | Dust finds a pinhole.
gloves | gloves | Gloves | Blow up. | Whole. | HOLE GLOVE | feel | Holes hide between the fingers.
flow | hood | Airflow at the hood | Indicator in the hood. | At or above the mark. | FLOW CLOG | feel | Before the zip.
alarm | pass | Alarm | Throttle the air. | It sounds. | ALRM | feel | Nobody inside hears the air stop.
${label()}`
	),
	look(
		'escape-set',
		'Escape set',
		`
seal | seal | Seal and date | Look. | Whole, in date. | SEALB DATE | look | A broken seal means nobody knows.
source | source | Gauge or filter date | Read it. | Green, in date. | FILL DATE | look | It has one job, once.
pouch | pouch | Pouch and strap | Pull the strap. | Holds, opens with one pull. | BUCK CUT TEAR | feel | There is no second pull.
${label()}`
	),
	look(
		'cylinder',
		'Cylinder',
		`
stamp | stamp | Test date and life | Read both. | In date. | STAMP LIFE LABEL | look | Past its date it is not worn.
body | body | Body | Turn it round. | No dent, cut, lifted fibre. | DENTC FIBRE RUST CHEM | look | Three hundred bar look for the weakest fibre.
gauge | gauge | Gauge | Read it. | 90 % or more, needle free. | GAUGE FILL | look | A stuck needle shows a full cylinder.
valve | valve | Thread and wheel | Look; turn. | Clean, turns. | THRD DIRTY LEAK | feel | A worn thread lets go all at once.`
	),
	look(
		'opened-filter',
		'Opened filter',
		`
date | label | Date and initials | Read them. | There, in date. | OPEN DATE LABEL | confirm | No date, no filter.
body | body | Body | Turn, shake. | No dent, rattle, wet. | DENT RATTLE RUST WET CRK | feel | Loose sorbent leaves a way past.
gasket | thread | Gasket and lugs | Look round. | There, whole. | GASK LUG THRD | look | It seals or it does not.
window | window | Indicator, if there is one | Look. | Not changed. | IND | look | It speaks once.`
	)
];
