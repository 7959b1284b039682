import { textTable } from './text-table.ts';

/** A part that a repair uses up. */
export interface RepairPart {
	part: string;
	quantity: number;
}

/** A repair job with the check that proves it. */
export interface Repair {
	key: string;
	name: string;
	/** Families that can have it. */
	families: readonly string[];
	steps: readonly string[];
	parts: readonly RepairPart[];
	/** Each must hold before the job counts as done. */
	proof: readonly string[];
	/** Closes with its own check and by one person, where nothing that stops was found. */
	small: boolean;
	/** Ends with the item out of use for good. */
	retires: boolean;
}

/** Parts that the store keeps, with their shelf life in months. Maker's figure in practice; common practice here. */
export const PARTS: Record<string, { name: string; shelfMonths: number | null }> = {
	'disc-exhalation': { name: 'Exhalation disc', shelfMonths: 60 },
	'disc-inhalation': { name: 'Inhalation disc', shelfMonths: 60 },
	gasket: { name: 'Filter gasket', shelfMonths: 60 },
	harness: { name: 'Head harness', shelfMonths: 84 },
	cradle: { name: 'Head cradle', shelfMonths: 84 },
	'valve-cover': { name: 'Valve cover', shelfMonths: null },
	adapter: { name: 'Centre adapter', shelfMonths: null },
	retainer: { name: 'Pre-filter retainer', shelfMonths: null },
	lens: { name: 'Lens', shelfMonths: null },
	'face-seal': { name: 'Face seal', shelfMonths: 84 },
	'inner-cup': { name: 'Inner cup', shelfMonths: 84 },
	diaphragm: { name: 'Speech diaphragm', shelfMonths: 84 },
	'closing-disc': { name: 'Self-closing disc', shelfMonths: 60 },
	insert: { name: 'Spectacle insert', shelfMonths: null },
	'drink-tube': { name: 'Drink tube', shelfMonths: 84 },
	bag: { name: 'Bag or carrier', shelfMonths: null },
	'blower-battery': { name: 'Blower battery', shelfMonths: 24 },
	'blower-hose': { name: 'Breathing hose', shelfMonths: 84 },
	hose: { name: 'Medium-pressure hose', shelfMonths: 120 },
	'cylinder-strap': { name: 'Cylinder strap', shelfMonths: null },
	'o-ring': { name: 'O-ring', shelfMonths: 84 },
	'co-sensor': { name: 'CO alarm sensor', shelfMonths: 24 },
	sorbent: { name: 'Sorbent and filter bed', shelfMonths: 36 },
	glove: { name: 'Suit glove', shelfMonths: 60 },
	boot: { name: 'Suit boot', shelfMonths: 120 },
	'suit-zip': { name: 'Suit zip', shelfMonths: null }
};

const GROUPS: Record<string, readonly string[]> = {
	masks: ['half-mask', 'full-face', 'canister-mask'],
	faces: ['full-face', 'canister-mask'],
	suits: ['gas-tight-suit', 'ventilated-suit'],
	all: [
		'half-mask',
		'full-face',
		'canister-mask',
		'powered-blower',
		'ba-set',
		'airline',
		'gas-tight-suit',
		'ventilated-suit',
		'escape-set',
		'cylinder',
		'opened-filter'
	]
};

/** Repair jobs and the families that can have them. Common practice; the maker's manual comes first. */
const TABLE = `
key | name | for | small | retires | parts | steps | proof
replace-disc | New valve disc | masks,suits | | | disc-exhalation 1 | Lift the old disc off its post; keep it for the fault record. / Wipe the seat with a lint-free cloth; look for nicks. / Wet the stem of the new disc with water, pull it through, trim nothing. | The disc turns freely on its post and lies flat. / The cover clicks home. / Palm on the inlets, breathe in: the mask pulls in and holds for ten seconds.
replace-gasket | New filter gasket | masks,powered-blower | | | gasket 1 | Lift out the old gasket. / Clean the groove. / Lay the new gasket in all round. | The gasket lies flat all round, under every lug. / The filter turns to its stop and sits without play.
replace-harness | New head harness | masks | | | harness 1 | Note how the straps run. / Unclip the old harness. / Thread the new one the same way. | Every strap runs in its channel. / Each buckle holds when pulled hard.
replace-cradle | New head cradle | masks | | | cradle 1 | Note how the straps run through it. / Change the cradle, straps in their channels. | The cradle is whole and lies flat. / Every strap runs in its channel.
replace-cover | New valve cover | masks | | | valve-cover 1 | Take a cover of this model from the store. / Press it on. | It clicks home and stays when pulled.
replace-adapter | New centre adapter | masks | | | adapter 1 | Take the old adapter off; it is never used twice. / Click the new one home, front and back. | It clicks front and back and cannot be pulled off.
replace-retainer | New pre-filter retainer | masks | | | retainer 1 | Take the old retainer off. / Fit the new one over the pre-filter, printed side away from the wearer. | It sits all round; the pre-filter cannot be shaken out.
replace-filters | New pair of filters | half-mask,full-face,powered-blower | | | | Take both filters off and discard them. / Open a new pair under Filters, date and initial both. | Both filters are the same type and class, dated and initialled.
replace-canister | New canister | canister-mask | | | | Take the old canister off and discard it. / Plug and tape off the new one; screw it home on its seal; date and initial it. | Same type and class as the plan says, dated, tight by hand.
replace-lens | New lens | faces | | | lens 1 | Take the old lens out as the maker shows. / Fit the new one; tighten the frame evenly. | Clear sight all round. / Under-pressure test passed on the bench.
replace-face-seal | New frame and face seal | faces | | | face-seal 1 | Take lens and frame off as the maker shows. / Fit the new seal; tighten the frame evenly all round. | The seal lies without a fold all round. / Under-pressure test passed on the bench.
replace-cup | New inner cup | faces | | | inner-cup 1 | Lift the old cup off its seat, its valves with it. / Press the new one in all round. | It sits all round; its valves move.
replace-diaphragm | New speech diaphragm | faces | | | diaphragm 1 | Unscrew the ring as the maker shows. / New diaphragm and seal; ring home, not over-tightened. | The foil is whole, the ring tight. / Under-pressure test passed on the bench.
replace-closing-disc | New self-closing disc | half-mask,full-face | | | closing-disc 1 | Take the mount apart as the maker shows. / Change disc and spring. | Pressed it opens, let go it closes, ten times out of ten.
replace-insert | New spectacle insert | faces | | | insert 1 | Clip the old one out. / Clip the new one in; lenses of this wearer. | It sits without touching the lens.
replace-drink-tube | New drink tube | faces | | | drink-tube 1 | Change tube and coupling as the maker shows. | The lever moves; air passes; nothing leaks with the lever shut.
replace-bag | New bag or carrier | masks,suits,escape-set | yes | | bag 1 | Take a bag of this kind; nothing else goes into it. | Clean, dry, closes; the item lies without being pressed.
mask-service | Service of the mask by an authorised person | masks | | | | Open only what the maker allows. / Replace what the maker lists; write the lot down. | The test that found it is passed. / The leak test is passed.
refit | Take apart and refit | masks,powered-blower,ba-set,suits,airline | yes | | | Take the part off. / Fit it the right way round. | It sits as the maker shows; arrows and marks line up.
clean | Clean and dry | masks,suits | | | | Take filters off; they are never washed. / Wash at 43 °C or below, rinse, dry without direct heat. | Clean, dry, no smell; valve discs flat after drying.
wipe | Wipe clean, never wash | ba-set,powered-blower,airline,cylinder,escape-set,opened-filter | yes | | | Wipe with a lint-free cloth and the disinfectant that the maker allows. / Nothing runs into valves, threads or contacts. | Clean and dry; couplings and threads free of lint.
relabel | New label | masks,powered-blower,ba-set,airline,suits,escape-set,cylinder | yes | | | Confirm the tag from the register and the serial number. / Print and fix a new label. | The label reads, and the scan finds this item.
tighten | Tighten and look again | masks,powered-blower,ba-set,airline,suits | | | | Find what is loose; tighten as the maker says, no more. | It no longer moves by hand.
recharge | Charge or change the battery | powered-blower,ba-set,airline | yes | | | Charge to full, or change all cells together. | Full charge shown. / The alarm sounds.
replace-battery | New blower battery | powered-blower | | | blower-battery 1 | Take the old battery to its own waste. / Clean the contacts, fit the new one, charge to full. | Full charge shown. / Flow above the mark with filters fitted, alarm sounds.
replace-blower-hose | New breathing hose | powered-blower,canister-mask | | | blower-hose 1 | Take the old hose off at both ends. / Fit the new one with its seals. | Both ends lock; no leak when the end is closed by hand.
blower-service | Service of the blower by an authorised person | powered-blower | | | | Open only what the maker allows. / Replace what the maker lists; write the lot down. | The indicator itself is checked, then flow is above the mark with filters fitted. / The alarm sounds when the intake is covered.
replace-hood | New hood, visor or helmet part | powered-blower,ventilated-suit,airline | | | | Change the part as the maker shows. | Clear sight; air reaches the face; nothing leaks at its joint.
refill | Fill the cylinder | ba-set,cylinder,airline | yes | | | Visual check first. / Fill under Air; write the fill down. | At least 90 % of the rated pressure when cool.
change-cylinder | Another cylinder | ba-set,airline | | | | Vent, take the cylinder off, tag it for what it needs. / Fit one of the right type, in date and full. | Hold for a minute: 10 bar lost at most. / At least 90 % of the rated pressure.
replace-ba-straps | New straps or cylinder strap | ba-set,powered-blower,escape-set | | | cylinder-strap 1 | Change the strap as the maker shows. | It holds when pulled hard; the cylinder does not move.
replace-hose | New hose or coupling | ba-set,airline | | | hose 1,o-ring 2 | Depressurise. / Change the hose with new seals. | Hold for a minute: 10 bar lost at most. / Coupling locks with its double action.
replace-seals | New seals or O-rings | ba-set,airline,cylinder | | | o-ring 2 | Depressurise. / Old seals out, new ones thinly greased with the maker’s grease. | Hold for a minute: 10 bar lost at most.
ba-service | Service by an authorised person | ba-set | | | | Open the part only as the maker allows. / Replace what the maker lists; write the lot down. | The function test that found it is passed. / The hold is passed.
replace-co-alarm | New sensor of the CO alarm | airline | | | co-sensor 1 | Change the sensor as the maker shows. / Adjust with test gas. | It sounds at 10 ppm of test gas.
replace-sorbent | New sorbent and filters | airline | | | sorbent 1 | Change the bed; drain the bowl. / Sign and date the tag. | Tag signed; the air test is entered under Air and passed.
air-test | Test the air | airline | | | | Sample at the outlet; send or measure. | The test is entered under Air and passed.
airline-service | Service of the rig by an authorised person | airline | | | | Open the part only as the maker allows. / Replace what the maker lists; write the lot down. | Pressure at each belt valve within the band with all wearers breathing.
replace-gloves | New gloves | suits | | | glove 1,o-ring 2 | Ring open, both O-rings out. / New glove, grease thinly, pin in. | Pin clicks. / Suit pressure test passed.
replace-boots | New boots | suits | | | boot 1 | By the maker or an authorised shop: boot off at its joint, new one in. | The joint is closed all round. / Suit pressure test passed.
replace-zip | New zip, by the maker or an authorised shop | suits | | | suit-zip 1 | Send with the record. | It runs lightly to its end. / Suit pressure test passed.
wax-zip | Wax the zip | suits | | | | Wax the elements in and out. / Run it twice with two hands, straight. | It runs lightly to its end.
replace-orings | New O-rings or pin | suits | | | o-ring 2 | Old ones out. / New ones thinly greased with the maker’s grease. | Clean, whole, pin clicks. / Suit pressure test passed.
suit-repair | Repair of the suit by the maker or an authorised shop | suits | | | | Decontaminate; send with the record. | Suit pressure test passed.
test-house | To the test house | cylinder | | | | Empty slowly, tag, send with its papers. | Back with a new stamp, or destroyed with a certificate.
cylinder-valve | New valve or thread dressed by an authorised person | cylinder | | | | Empty slowly. / Valve out, thread looked at, new valve with its seal. | No leak under soap at rated pressure.
exchange-set | Back to the maker, another in its place | escape-set | | | | Take it out of its cupboard; put another in its place. / Send it to the maker with its record. | Back sealed, with a new date.
discard-filter | Discard the filter | opened-filter | | yes | | Cut it or bend it so that nobody uses it. / Put it to the waste that its dust or gas asks for. | It cannot be worn again.
retire | Take out of use for good | all | | yes | | Cut the harness so that nobody can wear it. / Take usable parts out of the record. | The item cannot be worn again.
`;

const listed = (cell: string | undefined, by: string): string[] =>
	cell?.split(by).map((part) => part.trim()) ?? [];

/** Repair jobs, each with its steps, its parts and its proving check. */
export const REPAIRS: readonly Repair[] = textTable(TABLE).map((row) => ({
	key: row.key ?? '',
	name: row.name ?? '',
	families: listed(row.for, ',').flatMap((word) => GROUPS[word] ?? [word]),
	small: row.small === 'yes',
	retires: row.retires === 'yes',
	parts: listed(row.parts, ',').map((cell) => {
		const [part = '', quantity = '1'] = cell.split(' ');
		return { part, quantity: Number(quantity) };
	}),
	steps: listed(row.steps, ' / '),
	proof: listed(row.proof, ' / ')
}));

/** Jobs that records carry from before there was one for each part. */
const FORMER: readonly Repair[] = [
	{ key: 'replace-part', name: 'New part' },
	{ key: 'bench-service', name: 'Service on the bench by an authorised person' }
].map((one) => ({
	...one,
	families: [],
	small: false,
	retires: false,
	parts: [],
	steps: ['As the maker shows.'],
	proof: ['The test that found it is passed.']
}));

/** A repair by key. Throws RangeError on an unknown one. */
export function repairOf(key: string): Repair {
	const repair = [...REPAIRS, ...FORMER].find((r) => r.key === key);
	if (!repair) throw new RangeError(`No repair "${key}".`);
	return repair;
}

/** The jobs that a family can have. */
export const repairsOf = (family: string): Repair[] =>
	REPAIRS.filter((repair) => repair.families.includes(family));

/** The disc a station takes: the two valves of a mask use different ones. */
export function partForStation(part: string, station: string): string {
	return part === 'disc-exhalation' && station.startsWith('inhalation') ? 'disc-inhalation' : part;
}
