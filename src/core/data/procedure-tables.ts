import type { Procedure, ReadingRule } from '../inspection/procedure.ts';
import { commonPractice, published } from '../verdict.ts';
import { joined as join, procedure } from './procedure-text.ts';

const USE = published('29 CFR 1910.134(h)(3), what is inspected; order by common practice');
const EN137 = published('EN 137; order by common practice');

const BA_HEAD = `
key | station | title | action | good | rejects | kind | why | sides | if fitted
cyl-look | cylinder | Cylinder: type, test date, thread | Read stamp and label. Look into the thread. | Right type, in test, thread clean, body whole. | STAMP FIBRE DENTC THRD DIRTY | look | A cylinder past its test is not filled and not worn. | |
cyl-fill | cylinder | Cylinder: pressure | Read the gauge. | 90 % of the rated pressure or more. | FILL GAUGE | reading | Minutes come from content, not from the stamp. | |
handwheel | reducer | Hand wheel, metal to metal | Tighten with thumb and finger, no tools; or push the quick coupling home. | Home, no play, no tool marks. | THRD ORNG COUP | feel | A tool hides a missing seal until it leaks under pressure. | |
tpiece | tpiece | T-piece and combination | Two cylinders: check the T-piece and the approval. | Approved together, 18 kg at most in all. | COMP WGHT ORNG | look | Two cylinders can push the set over what a body may carry. | | yes
strap | strap | Cylinder strap | Pull the cylinder hard. | Fastener closed, cylinder does not move. | STRAP CUT BUCK | feel | A cylinder that slips pulls its own hose off. | |
frame | frame | Back frame | Look over the plate and its edges. | Whole, no sharp edge. | CRK CUT | look | It carries what keeps you alive. | |
straps | harness | Straps fully extended | Pull every strap to its end. | All fully out, not cut, buckles run. | EXT CUT BUCK | look | The next wearer loses a minute on a set put away pulled tight. | |
`;

const BA_TAIL = `
second | second | Second-wearer outlet | Look into the coupling, cap on. | Clean, cap on. | COUP DIRTY MISS | look | A rescue is no time to look for a cap. | | yes
seal | mask | Mask seal | Palm on the port, breathe in, hold. | It pulls in and holds. | SEALF CRK DIRTY | feel | The set is as tight as its mask. | |
off | distress | Distress unit off, vented, reset | Vent to zero, reset the demand valve, both buttons: unit off. | No pressure, no light, valve reset. | ALRM BATT FREE | confirm | A unit left on is flat when it is needed. | |
label | label | Label and identity | Read the tag against the screen. | This tag, readable, clean. | LABEL DIRTY | confirm | A record counts only for the set that it was written for. | |
`;

const readyFill: ReadingRule = { kind: 'fill', label: 'Gauge', unit: 'bar', code: 'FILL' };
const hold: ReadingRule = { kind: 'hold', label: 'Gauge', unit: 'bar', seconds: 60, code: 'LEAK' };
const whistle: ReadingRule = {
	kind: 'whistle',
	label: 'Whistle starts at',
	unit: 'bar',
	code: 'WHL',
	codeHigh: 'WHH'
};

/** Procedures beyond the half mask, as data. */
export const MORE_PROCEDURES: readonly Procedure[] = [
	procedure(
		{
			key: 'full-face-pre-use',
			name: 'Full-face mask, before and after use',
			family: 'full-face',
			origin: USE
		},
		`
key | station | title | action | good | rejects | kind | why | sides | if fitted
prefilter | prefilter | Pre-filter and retainer | Look at the pre-filter and press its retainer. | Whole, printed side away from the wearer, clicked home. | CLOG REV CRK ONCE | look | A coarse pre-filter worn alone is no filter. | both | yes
filter | filter | Filter: date, pair, body | Read date and initials. Turn it, shake it gently. | In date, dated, same as its twin, no dent, no rattle. | DATE OPEN MIX RATTLE DENT RUST CLOG | look | An unequal or old filter lets the vapour through on one side first. | both | yes
gasket | gasket | Mount: gasket and self-closing disc | Look under every lug; press the disc, let go. | Gasket whole and flat; the disc opens and closes. | GASK MISS LUG DISC DIRTY | look | A disc that stays open leaves a hole where the filter was. | both |
inhalation | inhalation | Inhalation disc | Turn the disc on its post with a fingertip. | Flat, soft, turns freely. | CURL SEAT TEAR MISS DIRTY DUST AGE | look | A disc that dried crumpled lets moist breath into the filter. | both |
cup | cup | Inner cup and its valves | Press the cup in all round; look at its valves. | Seated, valves whole. | CUP CURL MISS | feel | A cup off its seat fogs the lens at the worst moment. | |
body | facepiece | Facepiece: stretch and look | Stretch the rubber gently all round, chin cup too. | Soft, keeps its shape, no cracks. | CRK TEAR DIST STIFF STICKY AGE | feel | Solvent, heat and sun ruin rubber from inside. | |
edge | facepiece | Sealing edge | Run a clean finger round the edge. | Clean, smooth, no nick. | DIRTY TEAR DIST STICKY | feel | What lies on the edge lies between mask and face. | |
lens | lens | Lens | Look through it at the light. | Clear, no crack, scratch, stain or crazing in the way of sight. | SCR CRK CHEM | look | Who cannot see takes the mask off. | |
bond | lens | Bonding or frame all round | Bend the joint gently all round; try the frame screws. | Closed all round, screws tight. | BOND LOOSE | feel | An open bond is a leak right at the eye. | |
diaphragm | diaphragm | Speech diaphragm | Turn its ring; look at the foil. | Tight, foil whole. | DIAPH MISS | feel | It is the thinnest wall in the mask. | |
exhalation | exhalation | Exhalation disc and seat | Take the cover off, lift the disc, look at the seat. | Flat, soft, seat clean all round. | CURL SEAT TEAR STIFF DIRTY DUST AGE | look | A hair on the seat is a leak. | |
cover | cover | Valve cover back on | Press it on, pull at it. | It clicks and stays. | CLICK MISS CRK | feel | Without its cover the disc is bent by the first touch. | |
harness | harness | Straps, buckles, brow slots | Stretch each strap; pull each buckle; look at the slots. | Straps return, buckles hold, slots whole. | ELAS BUCK CUT TEAR | feel | A strap that gives loosens the seal unseen. | |
insert | insert | Spectacle insert, lens cover | Try its clips. | Firm, not bent. | LOOSE CRK | feel | Glasses under a seal are a leak; the insert is instead. | | yes
drink | drink | Drink tube | Move the lever; blow through the tube. | Moves; air passes. | DRINK CRK | feel | A blocked tube is found thirsty. | | yes
carrier | carrier | Carrier, cards, bag | Open it; look at seams, fasteners, cards, bag and bands. | Whole, dry, cards there, nothing else in it. | BAG MILD CARD WET | look | What lies on a mask shapes it. | |
label | label | Serial, lot, bar code | Read the tag against the screen. | This tag, readable. | LABEL DIRTY WET | confirm | A record counts only for this mask. | |
worn | facepiece | Put it on | Strap it on, look round, breathe hard. | Sees well, no leak, breathing is easy. | SEALF CLOG SCR | feel | Only a face finds what a bench misses. | |`
	),
	procedure(
		{
			key: 'canister-mask-pre-use',
			name: 'Canister mask, before and after use',
			family: 'canister-mask',
			origin: USE
		},
		`
key | station | title | action | good | rejects | kind | why
canister | canister | Canister | Read the date and seal; shake it; look for rust and dents. | In date, no rattle, no rust, seal tape as it should be. | DATE OPEN RATTLE RUST DENT | look | Loose sorbent leaves a way past it.
hose | hose | Hose and ends | Stretch it between the hands; look between the folds; pull the rings. | No crack, rings tight. | HOSE CUT LOOSE | feel | It perishes where nobody looks.
inhalation | inhalation | Inhalation disc | Turn it with a fingertip. | Flat, soft, turns. | CURL SEAT MISS DIRTY | look | It keeps breath out of the canister.
body | facepiece | Facepiece and edge | Stretch and look; finger round the edge. | Soft, whole, clean. | CRK TEAR DIST STIFF STICKY DIRTY AGE | feel | Rubber ages from inside.
lens | lens | Lens and frame | Look through; bend the bond. | Clear, bond closed. | SCR CRK BOND | look | Who cannot see takes it off.
exhalation | exhalation | Exhalation disc and seat | Cover off, lift, look. | Flat, soft, clean. | CURL SEAT TEAR DIRTY DUST AGE | look | A hair on the seat is a leak.
cover | cover | Cover on | Press, pull. | Clicks and stays. | CLICK MISS | feel | It guards the disc.
harness | harness | Harness | Stretch, pull buckles. | Returns, holds. | ELAS BUCK CUT | feel | It holds the seal.
carrier | carrier | Carrier, anti-fog | Look inside. | Clean, anti-fog there. | BAG MILD CARD | look | A crushed mask takes that shape.
label | label | Tag | Read it. | This tag. | LABEL | confirm | The record is this mask's.`
	),
	procedure(
		{
			key: 'powered-blower-pre-use',
			name: 'Powered blower, before use',
			family: 'powered-blower',
			origin: commonPractice('procedure J')
		},
		`
key | station | title | action | good | rejects | kind | why
filter | filter | Filters | Read dates; look at covers and gaskets. | In date, a full set of one kind, gaskets whole. | DATE MIX CLOG GASK DENT | look | A blower pushes dirty air as well as clean.
flow | blower | Flow, filters fitted | Hold the indicator on the hose with the battery full. | Ball at or above the mark. | FLOW CLOG | feel | Below the mark the hood breathes in at its edge.
hose | hose | Hose | Stretch it; try both bayonets. | No crack, locks at both ends. | HOSE CUT LOOSE | feel | It is torn off by the first ladder.
hood | hood | Hood, visor, head band | Look through; look at the face seal; try the band. | Clear, seal whole, band holds. | SCR CRK TEAR CHEM LOOSE | look | The edge is what keeps the flow inside.
exhaust | exhaust | Exhaust | Lift the flap. | Free, clean. | SEAT DIRTY | look | Blocked, it inflates; stuck open, it lets in.
battery | battery | Battery | Read the charge; look at the contacts. | Full, contacts clean. | BATT RUST | look | A half charge ends before the task.
belt | belt | Belt | Pull the buckle. | Holds. | BUCK CUT | feel | The blower hangs on it.
indicator | indicator | Flow indicator | Tip it. | Ball runs free, mark readable. | FLOW LABEL | look | A stuck ball passes everything.
alarm | alarm | Alarm | Cover the intake with the palm. | It sounds within seconds. | ALRM BATT | feel | It is the only thing that tells.
label | label | Tag | Read it. | This tag. | LABEL DIRTY | confirm | The record is this blower's.`
	),
	procedure(
		{
			key: 'ba-set-bench',
			name: 'BA set, before use: bench school',
			family: 'ba-set',
			school: 'bench',
			origin: EN137
		},
		join(
			BA_HEAD,
			`
open | gauge | Open slowly, fully | Demand valve reset. Open the cylinder slowly; listen and look. | Whistle sounds briefly while pressure builds, distress unit wakes, needle moves smoothly. | GAUGE FREE ALRM LEAK | feel | A fast opening hides a sticking needle. |  |
hold | coupling | Hold for a minute | Close the valve fully. Note the pressure, wait 60 s, note it again. | 10 bar lost at most. | LEAK COUP | hold | Nothing else finds a slow leak. |  |
vent | demand | Positive pressure and release | Palm on the outlet, switch on, lift the palm a little so that pressure falls slowly. | Air flows evenly; palm down, it stops. | FREE DEMD | feel | A valve that runs free empties the set in minutes. |  |
whistle | whistle | Whistle | While it falls, note the pressure at which the whistle starts. | 55 ± 5 bar. | WHL WHH | reading | A whistle that comes too late leaves no way out. |  |
distress | distress | Distress unit | Keep still; let the alarm run full; reset. | Warns, then full alarm, resets. | ALRM BATT | feel | It calls when nobody can. |  |
exhalation | exhalation | Exhalation valve | Breathe out through the mask. | Opens easily, closes. | SEAT CURL | feel | Stuck shut, it drowns the wearer in air. |  |`,
			BA_TAIL
		),
		{ 'cyl-fill': readyFill, hold, whistle }
	),
	procedure(
		{
			key: 'ba-set-worn',
			name: 'BA set, before use: worn school',
			family: 'ba-set',
			school: 'worn',
			origin: EN137
		},
		join(
			BA_HEAD,
			`
open | gauge | Open slowly, fully | Demand valve reset. Open the cylinder slowly; listen and look. | Whistle sounds briefly, distress unit wakes, needle moves smoothly. | GAUGE FREE ALRM LEAK | feel | A fast opening hides a sticking needle. |  |
hold | coupling | Hold for a minute | Close the valve fully. Note the pressure, wait 60 s, note it again. | 10 bar lost at most. | LEAK COUP | hold | Nothing else finds a slow leak. |  |
breath | demand | First breath | Mask on and connected, cylinder open. Breathe in. | The first breath switches positive pressure on. | DEMD FREE | feel | The wearer has no hand free for a switch. |  |
quiet | mask | Hold the breath | Hold it and listen. | No leak to hear. | SEALF LEAK | feel | What hisses now empties the cylinder later. |  |
exhalation | exhalation | Breathe out | Breathe out firmly. | The exhalation valve opens. | SEAT CURL | feel | Stuck shut, it drowns the wearer in air. |  |
whistle | whistle | Breathe down, whistle | Close the cylinder, breathe slowly; note the pressure at the whistle. | 55 ± 5 bar. | WHL WHH | reading | A whistle that comes too late leaves no way out. |  |
zero | mask | To zero | Breathe on to zero; open the cylinder at once after. | The mask pulls onto the face and stays. | SEALF | feel | It shows the mask seals under the least pressure. |  |
distress | distress | Distress unit | Keep still; let it warn; reset. | Warns, resets. | ALRM BATT | feel | It calls when nobody can. |  |`,
			BA_TAIL
		),
		{ 'cyl-fill': readyFill, hold, whistle }
	),
	procedure(
		{
			key: 'airline-pre-use',
			name: 'Airline rig, before use',
			family: 'airline',
			origin: published('29 CFR 1910.134(i) and 42 CFR 84 subpart J; order by common practice')
		},
		`
key | station | title | action | good | rejects | kind | why | if fitted
source | source | Air source | Read the last air test; look at the intake or the bank. | Air test in force, intake in clean air, bank full. | AIRT FILL | look | Bad air at the source reaches every wearer. |
sorbent | sorbent | Dryer, sorbent, change tag | Read the tag; drain the bowl. | Tag in date and signed, bowl dry. | DATE WET | look | A spent bed lets oil and water through. |
alarm | alarm | CO and temperature alarm | Press the test. | It sounds. | ALRM BATT | feel | Carbon monoxide has no smell. |
regulator | regulator | Inlet pressure | Read it with all wearers breathing. | Within the band of the approval. | BAND GAUGE | look | Below the band the last wearer starves. |
coupling | hose | Couplings | Try each. | Lock; fit no other gas. | COUP DIRTY | feel | Nitrogen through an air hose kills in two breaths. |
hose | hose | Hose | Walk along it; blow it through. | Within the allowed length, no cut, kink or crush. | HOSE CUT DIRTY | look | A kink starves, a cut bursts. |
belt | belt | Belt valve | Turn it through its settings. | Moves, holds, no leak. | FREE LOOSE | feel | It is what the wearer sets the air with. |
facepiece | facepiece | Hood, mask or suit | As its own inspection. | In date, whole. | SCR TEAR CRK DIRTY | look | The rig ends on a face. |
escape | escape | Escape cylinder | Read the gauge; try the valve. | 90 % or more, valve turns. | FILL STAMP | look | When the line ends it is all there is. | yes
reel | reel | Hose reel | Turn it; listen at the swivel. | Runs, no leak. | LOOSE LEAK | feel | The swivel is the first to leak. | yes
label | label | Approval label | Read band and lengths. | Readable, and what is fitted is on it. | LABEL COMP | confirm | A mixed rig has no approval. |`
	),
	procedure(
		{
			key: 'gas-tight-suit-visual',
			name: 'Gas-tight suit, visual',
			family: 'gas-tight-suit',
			origin: published('EN 943-1 information of the maker; order by common practice')
		},
		`
key | station | title | action | good | rejects | kind | why | sides | if fitted
pass | pass | Regulating valve, pass-through | Turn it through its settings; pull at it. | Firm, turns, seal there. | LOOSE ORNG MISS | feel | It is a hole in the suit that must hold. | |
channels | channels | Channels, tube, joints | Look inside along each. | On, not kinked, joints closed. | LOOSE TEAR | look | Air that does not reach the hood fogs it. | |
visor | visor | Visor and seam | Look through; bend the seam gently. | Clear, seam closed. | SCR CRK SEAM CHEM | look | The seam is the stiffest part of a soft suit. | |
faceseal | faceseal | Face seal | Stretch it. | No ageing or ozone cracks. | CRK TEAR STIFF | feel | Cracks show only when stretched. | | yes
rings | gloves | Ring, O-rings, pin | Pin out, ring open, both O-rings out; grease thinly; back; pin in. | O-rings clean and whole, pin clicks. | ORNG PIN CRK | feel | A dry O-ring leaks, a loose pin drops the glove. | both |
gloves | gloves | Glove | Blow it up by hand; look between the fingers. | No hole, not stiff. | HOLE GLOVE CHEM | feel | Holes hide between the fingers. | both |
body | sleeves | Material and seams | Spread it out; look and feel all over. | Not stiff, brittle, swollen, sticky or discoloured. | CHEM STIFF STICKY HOLE SEAM | feel | Chemical attack goes on in the bag. | |
crotch | crotch | Crotch seam | Pull it gently apart. | Closed. | SEAM | feel | It is the weak place. | |
boots | boots | Boots and joint | Bend the joint; look at the soles. | Fixed, whole, sole not worn through. | BOOT SEAM HOLE | feel | They stand in what is spilt. | |
zip | zip | Zip chain | Open the fly; bend the chain gently along both sides. | A round bend all along; no V. | ZIPV | look | A V-shaped kink is a broken zip. | |
zip-run | zip | Zip, waxed and run | Wax the elements in and out; run it twice with two hands. | Runs lightly to its end. | ZIPV WAX | feel | A dry zip is forced, and breaks. | |
exhaust | exhaust | Exhaust valves, inside and out | Lift each disc; look at the seats. | Firm, clean, flat. | SEAT CURL DIRTY LOOSE | look | They are the only way out for the air, and none in. | |
loops | loops | Loops, socks, hangers | Pull at each. | Whole. | ELAS TEAR | feel | A hood that hangs wrong pulls at the seal. | |
bag | bag | Bag | Look inside. | Clean, dry, not crushed. | BAG WET | look | Folds become cracks. | |
label | label | Label | Read it. | This tag, pressure test in date. | LABEL DATE | confirm | The test is of this suit. | |`
	),
	procedure(
		{
			key: 'gas-tight-suit-donning',
			name: 'Gas-tight suit, putting on with an assistant',
			family: 'gas-tight-suit',
			purpose: 'donning',
			origin: commonPractice('procedure F; the maker’s order comes first')
		},
		`
key | station | title | action | good | rejects | kind | why | second person
size | label | Right suit, right size | Read size and protection against the task. | Fits the wearer and the substance. | LABEL COMP | confirm | A suit too small bursts at the crotch, one too large trips. |
buddy | bag | Buddy and decontamination | Ask before anything is put on. | Both stand ready. | COMP | confirm | Nobody goes in while the way out is not there. |
hood | loops | Sit, hood pre-fit, loops | Sit down. Set the hood and its elastic loops. | Hood sits, loops not twisted. | ELAS | confirm | Later it cannot be reached. |
legs | boots | Legs, inner socks, oversocks, boots | Legs in, oversocks, boots, splash guard over the shaft. | Guard outside the boot all round. | BOOT SEAM | confirm | What runs down must run off. |
arms | gloves-left | Comfort gloves, right arm, left arm with help | Gloves on; right arm in; the assistant helps the left. | Fingers in their fingers. | GLOVE | confirm | A twisted sleeve tears at the ring. |
zip | zip | Zip, straight and shut | Two hands, straight, to its end. Guard over it, fastened. | Fully shut, guard fastened. | ZIPV WAX | confirm | Encapsulating types: air runs before it closes. | yes
ba | pass | Set on, ventilation hose | BA on without its mask; connect the hose. | Connected, air runs. | LOOSE COMP | confirm | Air must run before the suit is shut. |
mask | faceseal | Mask onto the face seal | Chin first; onto the face seal, not onto suit cloth; no folds. | No fold under the edge all round. | CRK SEALF | confirm | A fold is a channel. | yes
rings | gloves-right | Ring pins | Look at both pins. | Both in. | PIN | confirm | A loose pin drops the glove. | yes
helmet | visor | Helmet, last look | Helmet on; assistant walks round once. | Nothing open, nothing caught. | SEAM | confirm | The wearer sees nothing of the own back. | yes`
	),
	procedure(
		{
			key: 'ventilated-suit-visual',
			name: 'Ventilated suit, visual',
			family: 'ventilated-suit',
			origin: commonPractice('procedure E')
		},
		`
key | station | title | action | good | rejects | kind | why
pass | pass | Pass-through and silencer | Pull; blow through. | Firm, free. | LOOSE CLOG | feel | A clogged silencer starves quietly.
channels | channels | Channels | Look inside. | Whole, on. | TEAR LOOSE | look | They carry the air to the face.
hood | hood | Hood and visor | Look through; bend the seam. | Clear, closed. | SCR SEAM CRK | look | The seam lifts first.
body | body | Body and seams | Spread out, look. | No hole, seams closed. | HOLE SEAM | look | Dust finds a pinhole.
gloves | gloves | Gloves and cuffs | Blow up; look. | Whole. | HOLE GLOVE | feel | Holes hide between the fingers.
exhaust | exhaust | Exhaust valves | Lift each. | Free, flat. | SEAT CURL DIRTY | look | They must close when the air stops.
zip | zip | Zip | Bend gently. | Round bend. | ZIPV WAX | look | A V is broken.
label | label | Label | Read it. | This tag, uses left. | LABEL ONCE | confirm | Some are worn once only.`
	),
	procedure(
		{
			key: 'escape-set-check',
			name: 'Escape set, before it is carried in',
			family: 'escape-set',
			origin: published('29 CFR 1910.134(h)(3)(i)(C)')
		},
		`
key | station | title | action | good | rejects | kind | why
hood | hood | Hood stays packed | Look through the window, if there is one. | Not opened. | OPEN | look | Once opened it is used.
source | source | Filter or cylinder | Read date and gauge. | In date; gauge in the green. | DATE FILL | look | It has one job, once.
seal | seal | Seal | Look at the seal and its number. | Whole, number as recorded. | SEALB DATE | look | A broken seal means nobody knows.
pouch | pouch | Pouch and strap | Pull the strap. | Opens with one pull, strap holds. | BUCK CUT TEAR | feel | There is no second pull.
label | label | Tag | Read it. | This tag. | LABEL | confirm | The record is this set's.`
	),
	procedure(
		{
			key: 'cylinder-visual',
			name: 'Cylinder, at each fill',
			family: 'cylinder',
			origin: commonPractice('procedure G; maker and test house come first')
		},
		`
key | station | title | action | good | rejects | kind | why | if fitted
body | body | Body | Turn it round in good light; run a hand over it. | No dent, cut, gouge; no lifted or charred fibre; no corrosion. | DENTC FIBRE RUST CHEM | look | Three hundred bar look for the weakest fibre. |
valve | valve | Thread and valve | Look into the thread; turn the wheel. | Clean, whole, turns. | THRD DIRTY LEAK | feel | A worn thread lets go all at once. |
gauge | gauge | Gauge | Tap it. | Needle free, glass whole. | GAUGE | look | A stuck needle shows a full cylinder. | yes
guard | guard | Protective cover | Look. | Whole, on. | CRK MISS | look | Dirt in the valve goes into the reducer. | yes
residual | valve | Residual pressure | Open a crack, listen. | Some pressure is left. | EMPTY | feel | An empty one may hold water or anything else. |
stamp | stamp | Test stamp, life limit | Read both. | Test in date, life not reached. | STAMP LIFE LABEL | look | A cylinder past date is not filled. |
label | label | Label and colour | Read it. | This tag, the site's colour. | LABEL | confirm | Breathing air and nothing else. |`
	),
	procedure(
		{
			key: 'opened-filter-check',
			name: 'Opened filter, before it goes on',
			family: 'opened-filter',
			origin: commonPractice('procedure H')
		},
		`
key | station | title | action | good | rejects | kind | why | if fitted
seal | seal | Pack seal and date | Look at the pack. | Sealed when opened, in date. | OPEN DATE | look | The date counts only while sealed. |
body | body | Body | Turn, shake, look. | No dent, crack, rattle, rust or wet. | DENT CRK RATTLE RUST WET | feel | Loose sorbent leaves a way past. |
thread | thread | Lugs, thread, gasket | Look and feel round. | Whole, gasket there. | LUG GASK THRD | feel | It seals or it does not. |
marks | marks | Alignment marks | Find both. | There, readable. | LABEL | look | Without them it is cross-seated. |
window | window | Indicator | Look. | No specks, not changed. | IND | look | It speaks once. | yes
label | label | Date and initials | Read them. | There, readable. | OPEN LABEL | confirm | No date, no filter. |`
	)
];
