import type { Airway, Station, Zone } from '../airway/airway.ts';
import { textTable, type TextRow } from './text-table.ts';

/** Reads a family from a table of its stations in the order of the air; `both` makes a left and a right one. */
export function family(key: string, name: string, plural: string, table: string): Airway {
	const rows = textTable(table);
	const stations: Station[] = [];
	for (let i = 0; i < rows.length; i++) {
		if (rows[i]?.sides !== 'both') {
			stations.push(station(rows[i] ?? {}));
			continue;
		}
		// A run of paired stations is two branches: all of the left, then all of the right.
		const run: TextRow[] = [];
		for (; rows[i]?.sides === 'both'; i++) run.push(rows[i] ?? {});
		i--;
		for (const row of run) stations.push(station(row, 'left'), station(row, 'right'));
	}
	return { family: key, name, plural, stations };
}

function station(row: TextRow, side?: 'left' | 'right'): Station {
	return {
		key: side ? `${row.key}-${side}` : (row.key ?? ''),
		name: side ? `${row.name}, ${side}` : (row.name ?? ''),
		short: row.short ?? '',
		zone: row.zone as Zone,
		...(side ? { side } : {}),
		...(row['if fitted'] === 'yes' ? { ifFitted: true } : {}),
		faults: row.faults ?? ''
	};
}

/** Families beyond the half mask and their airways. Common practice: the inspection follows the air. */
export const MORE_FAMILIES: readonly Airway[] = [
	family(
		'full-face',
		'Full-face mask',
		'Full-face masks',
		`
key | name | short | zone | sides | if fitted | faults
prefilter | Pre-filter and retainer | pre-filter | ambient | both | yes | Clogged, reversed, retainer cracked, one-time adapter used again
filter | Filter or cartridge | filter | ambient | both | yes | Out of date, no opening date, dented, rattles, unequal pair
gasket | Mount and gasket | gasket | filtered | both | | Gasket lost, lug worn, self-closing disc sticks
inhalation | Inhalation valve | in-valve | filtered | both | | Disc curled, stiff, dirty or missing
cup | Inner cup and its valves | inner cup | mask | | | Cup off its seat, valve missing: the lens fogs
facepiece | Facepiece, sealing edge, chin cup | facepiece | mask | | | Cracked, torn, distorted, sticky, dirty edge
lens | Lens, frame and bonding | lens | mask | | | Scratched, crazed, stained, bond open, frame screw loose
diaphragm | Speech diaphragm | speech | mask | | | Loose, torn foil, ring not tight
exhalation | Exhalation valve and seat | out-valve | mask | | | Disc curled or stiff, grit on the seat
cover | Valve cover | cover | ambient | | | Missing, cracked, does not click
harness | Harness and buckles | harness | holding | | | Elastic dead, buckle slips, brow-strap slot torn
insert | Spectacle insert and lens cover | insert | holding | | yes | Bent, loose, clip broken
drink | Drink tube and coupling | drink tube | holding | | yes | Lever stiff, tube blocked, coupling cracked
carrier | Carrier, cards, waterproof bag | carrier | holding | | | Seams open, mildew, something else stored in it
label | Label and identity | label | holding | | | Serial, lot or bar code unreadable`
	),
	family(
		'canister-mask',
		'Canister mask with hose',
		'Canister masks',
		`
key | name | short | zone | sides | if fitted | faults
canister | Canister | canister | ambient | | | Rattles, rust, dents, seal tape broken, out of date
hose | Hose and its ends | hose | filtered | | | Cut, perished between the folds, ring loose
inhalation | Inhalation valve | in-valve | filtered | | | Disc curled, stiff or missing
facepiece | Facepiece and sealing edge | facepiece | mask | | | Cracked, torn, distorted, sticky
lens | Lens and frame | lens | mask | | | Scratched, bond open
exhalation | Exhalation valve and seat | out-valve | mask | | | Disc curled, grit on the seat
cover | Valve cover | cover | ambient | | | Missing, does not click
harness | Harness and buckles | harness | holding | | | Elastic dead, buckle slips
carrier | Carrier and anti-fog | carrier | holding | | | Strap torn, anti-fog dried out
label | Label and identity | label | holding | | | Unreadable, wrong tag`
	),
	family(
		'powered-blower',
		'Powered blower',
		'Powered blowers',
		`
key | name | short | zone | sides | if fitted | faults
filter | Filters | filters | ambient | | | Out of date, clogged, spark cover missing
blower | Blower and flow | blower | filtered | | | Flow below the mark, noise, impeller rubs
hose | Breathing hose | hose | filtered | | | Cut, perished, bayonet worn
hood | Hood, helmet or mask | hood | mask | | | Visor crazed, face seal torn, head band broken
exhaust | Exhaust | exhaust | ambient | | | Flap stuck, blocked
battery | Battery and contacts | battery | holding | | | Does not hold charge, contacts burnt
belt | Belt | belt | holding | | | Buckle broken, webbing cut
indicator | Flow indicator | indicator | holding | | | Ball sticks, mark unreadable
alarm | Alarm | alarm | holding | | | Does not sound when the flow is stopped
label | Label and identity | label | holding | | | Unreadable, wrong tag`
	),
	family(
		'ba-set',
		'BA set',
		'BA sets',
		`
key | name | short | zone | sides | if fitted | faults
cylinder | Cylinder, valve, gauge, thread | cylinder | high pressure | | | Past its test, below 90 %, thread dirty, valve stiff
reducer | Reducer and hand wheel | reducer | high pressure | | | Hand wheel tight by tool, seal missing, creep
gauge | High-pressure line and gauge | gauge | high pressure | | | Hose chafed, needle sticks, glass broken
whistle | Warning whistle | whistle | medium pressure | | | Sounds too late, too early or not at all
coupling | Medium-pressure hose and coupling | coupling | medium pressure | | | Couples without its double action, hose cracked
demand | Demand valve | demand | medium pressure | | | Does not switch on, free flow, bypass stiff
mask | Mask | mask | mask | | | As the full-face mask of its own tag
exhalation | Exhalation valve | out-valve | ambient | | | Sticks shut, leaks inwards
frame | Back frame | frame | holding | | | Cracked plate, sharp edge
strap | Cylinder strap | strap | holding | | | Fastener slips, webbing cut
harness | Shoulder and waist straps | straps | holding | | | Not fully extended, cut, buckle worn
distress | Distress unit | distress | holding | | | Battery low, does not wake, left on
second | Second-wearer outlet | second | holding | | yes | Coupling dirty, cap missing
tpiece | T-piece for two cylinders | T-piece | holding | | yes | Combination not approved, seal missing
label | Label and identity | label | holding | | | Unreadable, wrong tag`
	),
	family(
		'airline',
		'Airline rig',
		'Airline rigs',
		`
key | name | short | zone | sides | if fitted | faults
source | Compressor intake or bank | source | high pressure | | | Intake in bad air, bank low, no air test in force
sorbent | Dryer, filter and sorbent bed | sorbent | medium pressure | | | Change tag past its date, water in the bowl
alarm | CO and temperature alarm | alarm | medium pressure | | | Does not sound, past calibration
regulator | Regulator and manifold | regulator | medium pressure | | | Pressure outside the band, gauge broken
hose | Supply hose and couplings | hose | medium pressure | | | Too long, cut, kinked, crushed, coupling fits other gases
belt | Belt valve | belt valve | medium pressure | | | Stiff, leaks, settings worn
facepiece | Hood, mask or suit | hood | mask | | | As its own inspection
escape | Escape cylinder | escape | high pressure | | yes | Below 90 %, valve stiff, past its test
reel | Hose reel | reel | holding | | yes | Swivel leaks, brake broken
label | Approval label | label | holding | | | Pressure band or hose lengths unreadable`
	),
	family(
		'gas-tight-suit',
		'Gas-tight suit',
		'Gas-tight suits',
		`
key | name | short | zone | sides | if fitted | faults
pass | Air pass-through and regulating valve | air in | medium pressure | | | Loose, does not turn, seal missing
channels | Inner channels, tube, T and Y joints | channels | suit interior | | | Off, kinked, joint open
visor | Visor and its seam | visor | suit interior | | | Crazed, scratched, seam lifting
faceseal | Face seal | face seal | suit interior | | yes | Ageing or ozone cracks
gloves | Gloves, ring system, O-rings, pin | gloves | suit interior | both | | O-ring dry, pin out, glove holed
sleeves | Sleeves and body | body | suit interior | | | Stiff, brittle, swollen, sticky, discoloured
crotch | Crotch seam | crotch | suit interior | | | Seam lifting: the weak place
boots | Boots and their joint | boots | suit interior | | | Joint open, sole worn, holed
zip | Zip, fly and splash guards | zip | suit interior | | | V-shaped kink, stiff, teeth gone
exhaust | Exhaust valves, in and out | exhaust | ambient | | | Stuck, dirty, disc curled
loops | Hood loops, inner socks, hangers | loops | holding | | | Elastic dead, sock torn
bag | Bag | bag | holding | | | Crushed, wet, in the sun
label | Label and identity | label | holding | | | Unreadable, wrong tag`
	),
	family(
		'ventilated-suit',
		'Ventilated suit',
		'Ventilated suits',
		`
key | name | short | zone | sides | if fitted | faults
pass | Airline pass-through | air in | medium pressure | | | Loose, silencer clogged
channels | Channels | channels | suit interior | | | Torn, off
hood | Hood and visor | hood | suit interior | | | Crazed, seam lifting
body | Body and seams | body | suit interior | | | Holed, seam open
gloves | Gloves and cuffs | gloves | suit interior | | | Holed, cuff worn
exhaust | Exhaust valves | exhaust | ambient | | | Stuck, disc curled
zip | Zip and fly | zip | holding | | | V-shaped kink, stiff
label | Label and identity | label | holding | | | Unreadable, single use already worn`
	),
	family(
		'escape-set',
		'Escape set',
		'Escape sets',
		`
key | name | short | zone | sides | if fitted | faults
hood | Hood or mouthpiece | hood | mask | | | Not to be opened while sealed
source | Filter or cylinder | source | high pressure | | | Past its date, gauge outside the green
seal | Seal and expiry | seal | ambient | | | Broken, missing, past its date
pouch | Pouch and strap | pouch | holding | | | Torn, does not open with one pull
label | Label and identity | label | holding | | | Unreadable, wrong tag`
	),
	family(
		'cylinder',
		'Cylinder',
		'Cylinders',
		`
key | name | short | zone | sides | if fitted | faults
body | Body, paint, fibres | body | high pressure | | | Dents, cuts, gouges, lifted or charred fibres, corrosion
valve | Thread and valve | valve | high pressure | | | Thread worn, dirt, wheel stiff, leaks
gauge | Gauge | gauge | high pressure | | yes | Needle sticks, glass broken
guard | Protective cover | cover | holding | | yes | Cracked, missing
stamp | Test stamp and life limit | stamp | holding | | | Past its test, past its life, unreadable
label | Label and colour | label | holding | | | Colour not the site's, tag unreadable`
	),
	family(
		'opened-filter',
		'Opened filter',
		'Opened filters',
		`
key | name | short | zone | sides | if fitted | faults
seal | Pack seal and date | seal | ambient | | | Opened without a date, past its date
body | Body | body | ambient | | | Dent, crack, rattle, rust, wet
thread | Thread or bayonet, lugs, gasket | thread | filtered | | | Lug broken, thread worn, gasket missing
marks | Alignment marks | marks | filtered | | | Missing, unreadable
window | End-of-life indicator | window | filtered | | yes | Specks, changed colour
label | Opening date and initials | label | holding | | | Missing, unreadable`
	)
];
