/** A part that a repair uses up. */
export interface RepairPart {
	part: string;
	quantity: number;
}

/** A repair job with the check that proves it. */
export interface Repair {
	key: string;
	name: string;
	steps: readonly string[];
	parts: readonly RepairPart[];
	/** Each must hold before the job counts as done. */
	proof: readonly string[];
	/** Ends with the item out of use for good. */
	retires?: boolean;
}

/** Parts that the store keeps, with their shelf life in months. Maker's figure in practice; common practice here. */
export const PARTS: Record<string, { name: string; shelfMonths: number | null }> = {
	'disc-exhalation': { name: 'Exhalation disc', shelfMonths: 60 },
	'disc-inhalation': { name: 'Inhalation disc', shelfMonths: 60 },
	gasket: { name: 'Filter gasket', shelfMonths: 60 },
	harness: { name: 'Head harness', shelfMonths: 84 },
	'valve-cover': { name: 'Valve cover', shelfMonths: null },
	lens: { name: 'Lens', shelfMonths: null },
	hose: { name: 'Medium-pressure hose', shelfMonths: 120 },
	'o-ring': { name: 'O-ring', shelfMonths: 84 },
	glove: { name: 'Suit glove', shelfMonths: 60 }
};

/** Repair jobs for negative-pressure masks. Common practice; the maker's manual comes first. */
export const REPAIRS: readonly Repair[] = [
	{
		key: 'replace-disc',
		name: 'New valve disc',
		steps: [
			'Lift the old disc off its post; keep it for the fault record.',
			'Wipe the seat with a lint-free cloth; look for nicks.',
			'Wet the stem of the new disc with water, pull it through, trim nothing.'
		],
		parts: [{ part: 'disc-exhalation', quantity: 1 }],
		proof: [
			'The disc turns freely on its post and lies flat.',
			'The cover clicks home.',
			'Palm on the inlets, breathe in: the mask pulls in and holds for ten seconds.'
		]
	},
	{
		key: 'replace-gasket',
		name: 'New filter gasket',
		steps: ['Lift out the old gasket.', 'Clean the groove.', 'Lay the new gasket in all round.'],
		parts: [{ part: 'gasket', quantity: 1 }],
		proof: [
			'The gasket lies flat all round, under every lug.',
			'The filter turns to its stop and sits without play.'
		]
	},
	{
		key: 'replace-harness',
		name: 'New head harness',
		steps: [
			'Note how the straps run.',
			'Unclip the old harness.',
			'Thread the new one the same way.'
		],
		parts: [{ part: 'harness', quantity: 1 }],
		proof: ['Every strap runs in its channel.', 'Each buckle holds when pulled hard.']
	},
	{
		key: 'replace-part',
		name: 'New part',
		steps: ['Take the part from the store, same model.', 'Fit it as the maker shows.'],
		parts: [{ part: 'valve-cover', quantity: 1 }],
		proof: ['The part sits as the maker shows and cannot be shaken off.']
	},
	{
		key: 'replace-filters',
		name: 'New pair of filters',
		steps: [
			'Take both filters off and discard them.',
			'Open a new pair under Filters, date and initial both.'
		],
		parts: [],
		proof: ['Both filters are the same type and class, dated and initialled.']
	},
	{
		key: 'refit',
		name: 'Take apart and refit',
		steps: ['Take the part off.', 'Fit it the right way round.'],
		parts: [],
		proof: ['It sits as the maker shows; arrows and marks line up.']
	},
	{
		key: 'clean',
		name: 'Clean and dry',
		steps: [
			'Take filters off; they are never washed.',
			'Wash at 43 °C or below, rinse, dry without direct heat.'
		],
		parts: [],
		proof: ['Clean, dry, no smell; valve discs flat after drying.']
	},
	{
		key: 'relabel',
		name: 'New label',
		steps: [
			'Confirm the tag from the register and the serial number.',
			'Print and fix a new label.'
		],
		parts: [],
		proof: ['The label reads, and the scan finds this item.']
	},
	{
		key: 'replace-lens',
		name: 'New lens',
		steps: [
			'Take the old lens out as the maker shows.',
			'Fit the new one; tighten the frame evenly.'
		],
		parts: [{ part: 'lens', quantity: 1 }],
		proof: ['Clear sight all round.', 'Under-pressure test passed on the bench.']
	},
	{
		key: 'tighten',
		name: 'Tighten and look again',
		steps: ['Find what is loose; tighten as the maker says, no more.'],
		parts: [],
		proof: ['It no longer moves by hand.']
	},
	{
		key: 'bench-service',
		name: 'Service on the bench by an authorised person',
		steps: [
			'Open the part only as the maker allows.',
			'Replace what the maker lists; write the lot down.'
		],
		parts: [],
		proof: ['The function test that found it is passed.', 'The leak test is passed.']
	},
	{
		key: 'recharge',
		name: 'Charge or change the battery',
		steps: ['Charge to full, or change all cells together.'],
		parts: [],
		proof: ['Full charge shown.', 'Alarm and flow hold with filters fitted.']
	},
	{
		key: 'refill',
		name: 'Fill the cylinder',
		steps: ['Visual check first.', 'Fill under Air; write the fill down.'],
		parts: [],
		proof: ['At least 90 % of the rated pressure when cool.']
	},
	{
		key: 'test-house',
		name: 'To the test house',
		steps: ['Empty slowly, tag, send with its papers.'],
		parts: [],
		proof: ['Back with a new stamp, or destroyed with a certificate.']
	},
	{
		key: 'replace-hose',
		name: 'New hose or coupling',
		steps: ['Depressurise.', 'Change the hose with new seals.'],
		parts: [
			{ part: 'hose', quantity: 1 },
			{ part: 'o-ring', quantity: 2 }
		],
		proof: ['Hold for a minute: 10 bar lost at most.', 'Coupling locks with its double action.']
	},
	{
		key: 'air-test',
		name: 'Test the air',
		steps: ['Sample at the outlet; send or measure.'],
		parts: [],
		proof: ['The test is entered under Air and passed.']
	},
	{
		key: 'replace-gloves',
		name: 'New gloves',
		steps: ['Ring open, both O-rings out.', 'New glove, grease thinly, pin in.'],
		parts: [
			{ part: 'glove', quantity: 1 },
			{ part: 'o-ring', quantity: 2 }
		],
		proof: ['Pin clicks.', 'Suit pressure test passed.']
	},
	{
		key: 'replace-zip',
		name: 'New zip, by the maker or an authorised shop',
		steps: ['Send with the record.'],
		parts: [],
		proof: ['Suit pressure test passed.']
	},
	{
		key: 'wax-zip',
		name: 'Wax the zip',
		steps: ['Wax the elements in and out.', 'Run it twice with two hands, straight.'],
		parts: [],
		proof: ['It runs lightly to its end.']
	},
	{
		key: 'replace-orings',
		name: 'New O-rings or pin',
		steps: ['Old ones out.', 'New ones thinly greased with the maker’s grease.'],
		parts: [{ part: 'o-ring', quantity: 2 }],
		proof: ['Clean, whole, pin clicks.', 'Suit pressure test passed.']
	},
	{
		key: 'retire',
		name: 'Take out of use for good',
		steps: ['Cut the harness so that nobody can wear it.', 'Take usable parts out of the record.'],
		parts: [],
		proof: ['The item cannot be worn again.'],
		retires: true
	}
];

/** A repair by key. Throws RangeError on an unknown one. */
export function repairOf(key: string): Repair {
	const repair = REPAIRS.find((r) => r.key === key);
	if (!repair) throw new RangeError(`No repair "${key}".`);
	return repair;
}

/** The disc a station takes: the two valves of a mask use different ones. */
export function partForStation(part: string, station: string): string {
	return part === 'disc-exhalation' && station.startsWith('inhalation') ? 'disc-inhalation' : part;
}
