import type { Procedure } from '../inspection/procedure.ts';
import { commonPractice } from '../verdict.ts';
import { procedure } from './procedure-text.ts';

const HEAD = 'key | station | title | action | good | rejects | kind | why | if fitted';
const CLOSING = commonPractice('taking off and closing down; the maker’s card comes first');
const DONNING = commonPractice('putting on with an assistant; the maker’s order comes first');

const closing = (family: string, name: string, rows: string): Procedure =>
	procedure(
		{
			key: `${family}-after-use`,
			name: `${name}, taking off and closing down`,
			family,
			purpose: 'closing',
			levels: ['after use'],
			origin: CLOSING
		},
		`${HEAD}\n${rows.trim()}`
	);

const MASK_OFF = `
clear | label | Clear of the area, hands clean | Go out first. Hands clean or gloved. | Out of it, hands clean. | DIRTY | confirm | What is on the hands is at the mouth next. |
off | harness | Neck strap first, then forward and down | Neck strap, then the cradle forward and down, away from the face; never dragged up over it. Filters not touched. | Off without touching the front. | ELAS BUCK | confirm | The front is the dirty side. |
noticed | facepiece | What was noticed | Smell, leak, harder breathing, pressure marks. | Nothing. | SEALF CLOG LEAK | confirm | The wearer knows it now and has forgotten it at the next shift. |
dirty | bag | Into the dirty bag | Into the bag for the wash, never onto the bench. | In its bag, bag shut. | BAG | confirm | A mask on the bench makes the bench dirty. |`;

/** Taking off and closing down, cylinder change, and putting on where a second form is needed. Common practice. */
export const CLOSINGS: readonly Procedure[] = [
	closing('half-mask', 'Half mask', MASK_OFF),
	closing('full-face', 'Full-face mask', MASK_OFF.replace('| bag |', '| carrier |')),
	closing(
		'canister-mask',
		'Canister mask',
		MASK_OFF.replace('| bag |', '| carrier |').replace(
			'Filters not touched',
			'Canister not touched'
		)
	),
	closing(
		'powered-blower',
		'Powered blower',
		`
clear | label | Clear of the area | Go out first; blower still running. | Out of it, air still running. | DIRTY | confirm | A blower that stops inside is a bag over the head. |
off | hood | Hood off, then the blower | Hood forward and down; then switch off. | Off without touching the filters. | SCR TEAR | confirm | The outside is the dirty side. |
filter | filter | Filters looked at, not touched | Clogged, wet, past their hours? | They may stay. | CLOG WET DATE | look | A wet filter is finished. |
battery | battery | Battery to its charger | Out, contacts wiped, on charge. | On charge. | BATT RUST | confirm | A half charge ends before the task. |
wipe | blower | Wiped, never immersed | Wipe blower, hose and belt. | Clean. | DIRTY | confirm | Water in the motor shows at the next shift. |`
	),
	closing(
		'ba-set',
		'BA set',
		`
clear | label | Clear of the area | Go out first. | Out of it. | DIRTY | confirm | The last breath of clean air is taken outside. |
reset | demand | Demand valve reset, seal broken | Reset positive pressure, then break the seal. | No free flow. | FREE DEMD | feel | Else the set empties itself over the yard. |
shut | cylinder | Cylinder closed | Close the valve. Note what is left. | Closed. | GAUGE LEAK | confirm | What is left is the wearer's consumption. |
vent | whistle | Vented to zero | Vent by the demand valve until the gauge shows zero; hear the whistle pass. | Zero. | WHL GAUGE | feel | A quick coupling opens only without pressure. |
distress | distress | Distress unit off | Both buttons. | No light. | ALRM BATT | confirm | Left on, it is flat when it is needed. |
straps | harness | Straps fully extended | Pull every strap to its end. | All out. | EXT CUT BUCK | look | The next wearer loses a minute on a set put away tight. |
cylinder | tpiece | Cylinder off, to filling | Strap open, cylinder off by hand. | Off, cap on its thread. | THRD COUP | confirm | An empty set looks full on its hook. | yes
wipe | frame | Frame and pneumatics wiped | Lint-free cloth and disinfectant; frame, pneumatics and demand valve never immersed. | Clean, dry. | DIRTY | confirm | Water in the demand valve freezes or sticks. |
mask | mask | Mask to the wash | Into its dirty bag. | In its bag. | SEALF SCR | confirm | It goes another way than the set. |`
	),
	closing(
		'gas-tight-suit',
		'Gas-tight suit',
		`
decon | label | Decontaminated, air still running | Washed down first; nobody opens before. | Clean by the one who washes. | CHEM DIRTY | confirm | What is on the suit is on whoever opens it. |
open | zip | Opened by the assistant | Zip with two hands, straight. | Open, no force. | ZIPV WAX | confirm | The wearer cannot see the zip. |
roll | sleeves | Rolled down, inside out | The wearer touches the inside only. | Inside out. | CHEM HOLE | confirm | The outside stays outside. |
mask | faceseal | Mask last | Mask off last, away from the face. | Last of all. | CRK | confirm | Vapour hangs in the folds. | yes
where | bag | To quarantine or the wash | Marked with what it met. | Marked, in its place. | BAG CHEM | confirm | Who finds it next must know. |`
	),
	closing(
		'ventilated-suit',
		'Ventilated suit',
		`
decon | label | Dust off, air still running | Vacuum or wash down first. | Clean. | DIRTY | confirm | What is on the suit is in the room next. |
open | zip | Opened, air still running | Zip straight. | Open. | ZIPV | confirm | Air runs until the hood is off. |
roll | body | Rolled down, inside out | Touch the inside only. | Inside out. | HOLE | confirm | The outside stays outside. |
where | gloves | To the wash or to waste | Marked. | In its place. | DIRTY HOLE | confirm | Some are worn once only. |`
	),
	procedure(
		{
			key: 'ba-set-cylinder-change',
			name: 'BA set, cylinder change',
			family: 'ba-set',
			purpose: 'change',
			levels: ['cylinder change'],
			origin: commonPractice('cylinder change; the maker’s manual comes first')
		},
		`${HEAD}
vent | gauge | Closed and vented | Close the valve, vent by the demand valve. | Gauge at zero. | GAUGE FREE | look | Under pressure nothing opens, or all at once. |
off | strap | Strap open, cylinder off | Strap open; unscrew by hand, a quarter turn at a quick coupling. | Off without a tool. | STRAP COUP THRD | feel | A tool hides a missing seal. |
look | reducer | Threads and seal | Look at both threads and the seal. | Clean, seal there. | THRD ORNG DIRTY | look | The seal stays in the old cylinder and is missed. |
new | cylinder | New cylinder: right type, in date, filled | Read stamp, label and gauge. Scan it onto the set. | Approved for this set, in date, full. | STAMP COMP FILL FIBRE | confirm | The set’s record changes with it. |
on | reducer | Metal to metal, by hand | Thumb and finger; or push the coupling home. | Home, no play. | THRD ORNG COUP | feel | It seals or it is not home. |
strap | strap | Strap to its diameter | Adjust, close, pull hard. | It does not move. | STRAP | feel | A thinner cylinder slips in the old loop. |
two | tpiece | Two: T-piece, combination, weight | Approved together, 18 kg at most. | As approved. | COMP WGHT ORNG | confirm | Two can be more than a body may carry. | yes
leak | coupling | Open, listen, read, close | Open, listen for a leak, read the gauge, close, vent. | 90 % or more, no leak. | LEAK FILL GAUGE | feel | Nobody wears what was not tried. |`
	),
	procedure(
		{
			key: 'gas-tight-suit-donning-inside',
			name: 'Encapsulating suit, BA inside, with an assistant',
			family: 'gas-tight-suit',
			purpose: 'donning',
			origin: DONNING
		},
		`
key | station | title | action | good | rejects | kind | why | second person
date | label | Zip and pressure test in date, right suit | Read both; size and protection against the task. | In date, fits wearer and substance. | DATE LABEL COMP | confirm | A suit out of date is a coat. |
ready | bag | Decontamination, buddy, BA tested | Ask before anything is put on. | All three stand ready. | COMP | confirm | Nobody goes in while the way out is not there. |
legs | boots | Clean ground, shoes off, sit; legs, socks, boots | Legs in, oversocks, boots, guard over the shaft. | Guard outside all round. | BOOT SEAM | confirm | What runs down must run off. |
ba | pass | BA on, valve open, pressure and radio | Set on; open; read; try the radio. | 90 % or more, radio heard. | FILL COMP | confirm | It cannot be reached once the suit is shut. |
mask | faceseal | Mask on, seal check, breathing from the set | Chin first; palm on the port; then connect and breathe. | Tight, and breathing from the set. | SEALF CRK | confirm | Never shut onto a wearer who does not breathe from the set. |
air | channels | Ventilation hose, air running | Connect; feel it at the hood. | Air runs. | LOOSE CLOG | confirm | Air runs before anything is shut. |
breathing | visor | Breathes from the set: seen by the assistant | Look at mask, gauge and chest before the zip is touched. | Breathes, gauge steady. | FREE FILL | confirm | The last moment at which it costs nothing. | yes
arms | gloves-left | Arms, hood over the set | Comfort gloves; arms in; hood over the set. | Fingers in their fingers, hood sits. | GLOVE | confirm | A twisted sleeve tears at the ring. |
zip | zip | Zip, straight, two hands, guard over it | By the assistant, to its end; guard fastened. | Fully shut, guard fastened. | ZIPV WAX | confirm | A forced zip breaks to a V. | yes
rings | gloves-right | Ring pins | Look at both. | Both in. | PIN | confirm | A loose pin drops the glove. | yes
round | sleeves | All round, once | Walk round; nothing open, nothing caught. | Nothing open. | SEAM HOLE | confirm | The wearer sees nothing of the own back. | yes
board | label | Time and pressure to the entry board | Call both in. | On the board. | COMP | confirm | The board counts from here. | yes`
	),
	procedure(
		{
			key: 'half-mask-deep',
			name: 'Half mask, yearly, before the fit test',
			family: 'half-mask',
			levels: ['yearly deep'],
			origin: commonPractice('deeper version, yearly and before the fit test')
		},
		`
key | station | title | action | good | rejects | kind | why | sides | if fitted
prefilter | prefilter | Pre-filter and retainer | Take the retainer off and put it back. | Whole, clicked home, printed side away from the wearer. | CLOG REV CRK ONCE | look | A coarse pre-filter worn alone is no filter. | both | yes
filter | filter | Filter off: date label, body | Filter off; read its label; shake it. | Dated, initialled, same as its twin, no rattle. | DATE OPEN MIX RATTLE DENT RUST CLOG | look | An unequal or old filter lets the vapour through first. | both |
gasket | gasket | Gasket lifted and looked at | Lift it out of its groove; look at both sides; lay it in. | Whole, soft, flat all round. | GASK MISS LUG DIRTY | look | Its crack is on the side that nobody sees. | both |
inhalation | inhalation | Inhalation disc off and on | Pull the disc off its post, look at post and seat, put it back. | Flat, soft, seat clean, turns freely. | CURL SEAT TEAR MISS DIRTY DUST AGE | feel | It is looked at where it touches. | both |
refit | gasket | Filter back on | Marks aligned, to the stop. | At the stop, no play. | LUG GASK REV MISS | feel | One notch short is a gap. | both |
body | facepiece | Facepiece: stretched all over | Stretch every part in good light, inside and out. | Soft, keeps its shape, no cracks. | CRK TEAR DIST STIFF STICKY AGE | feel | The crack shows only when stretched. | |
edge | facepiece | Sealing edge | Run a clean finger round it. | Clean, smooth. | DIRTY TEAR DIST STICKY | feel | What lies on the edge lies between mask and face. | |
exhalation | exhalation | Exhalation disc off and on | Cover off both ways; pull the disc, look at stem and seat; reseat it. | Flat, soft, seat clean, falls back by itself. | CURL SEAT TEAR STIFF DIRTY DUST AGE | feel | The one valve that opens to the outside air. | |
cover | cover | Cover on | Press, pull. | Clicks and stays. | CLICK MISS CRK | feel | It guards the disc. | |
harness | harness | Straps off and on, cradle | Take the straps out of their channels and put them back. | They return; no cuts; cradle whole. | ELAS BUCK CUT CHAN CRK | feel | They crack where they run through. | |
label | label | Label and tag | Read both against the screen. | Readable. | LABEL DIRTY WET CRK | confirm | The record is of this mask. | |
bag | bag | Bag | Look inside. | Clean, closes. | BAG DIRTY WET | look | A mask stored crushed takes that shape. | |
seal-check | facepiece | Seal check, then the fit test | Block the inlets and breathe in, or cover the outlet and breathe out. | It holds. | SEALF LEAK | feel | It is no fit test. | |`
	)
];
