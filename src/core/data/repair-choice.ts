import { withoutSide } from '../airway/airway.ts';
import { airwayOf } from './families.ts';
import { RECALLED, rejectCode } from './reject-codes.ts';
import { repairOf, repairsOf, type Repair } from './repairs.ts';
import { textTable } from './text-table.ts';

/**
 * Which repair mends a code, by family and station; the first row that fits. Families and stations by their keys, a
 * side left out, `*` for any. What no row names goes by the table of codes, where the family can have that job.
 * Common practice; the maker's manual comes first.
 */
const TABLE = `
family | station | code | repair
half-mask,full-face,canister-mask | * | LABEL | relabel
half-mask,full-face,canister-mask | prefilter | CLOG | replace-filters
half-mask,full-face,canister-mask | prefilter | CRK | replace-retainer
half-mask,full-face,canister-mask | prefilter | ONCE | replace-adapter
half-mask,full-face,canister-mask | prefilter | MISS | replace-retainer
half-mask,full-face,canister-mask | prefilter | REV | refit
half-mask,full-face | filter | CRK,DATE,OPEN,MIX,RATTLE,DENT,RUST,CLOG,WET,HOLE,LABEL,IND | replace-filters
canister-mask | canister | * | replace-canister
half-mask,full-face | gasket | DISC | replace-closing-disc
half-mask,full-face | gasket | GASK,MISS,TEAR,CRK | replace-gasket
half-mask,full-face,canister-mask | inhalation,exhalation | CURL,SEAT,TEAR,MISS,STIFF,STICKY,AGE,CRK,DIST | replace-disc
half-mask,full-face,canister-mask | cover | CLICK,MISS,CRK | replace-cover
full-face,canister-mask | facepiece | TEAR,CRK,DIST,STIFF,STICKY,AGE,HOLE | replace-face-seal
half-mask | facepiece | TEAR,CRK,DIST,STIFF,STICKY,HOLE | retire
half-mask | facepiece | AGE | mask-service
full-face,canister-mask | lens | SCR,CRK,CHEM | replace-lens
full-face,canister-mask | lens | BOND | replace-face-seal
full-face,canister-mask | lens | LOOSE | tighten
full-face | cup | CUP | refit
full-face | cup | CURL,MISS,TEAR,CRK | replace-cup
full-face | diaphragm | DIAPH,MISS,LOOSE,TEAR,CRK | replace-diaphragm
half-mask,full-face,canister-mask | harness | CRK | replace-cradle
half-mask,full-face,canister-mask | harness | ELAS,BUCK,CUT,TEAR,MISS | replace-harness
full-face | insert | * | replace-insert
full-face | drink | DRINK,CRK,MISS,LEAK,CLOG | replace-drink-tube
half-mask,full-face,canister-mask | bag,carrier | DIRTY,WET,MILD | clean
half-mask,full-face,canister-mask | bag,carrier | * | replace-bag
canister-mask | hose | * | replace-blower-hose
half-mask,full-face,canister-mask | * | DIRTY,WET,DUST,MILD | clean
half-mask,full-face,canister-mask | * | SEALF,LEAK,LUG,CURL,SEAT | mask-service
powered-blower | filter | * | replace-filters
powered-blower | hose | CUT,CRK,TEAR,HOSE,LOOSE,LEAK,HOLE | replace-blower-hose
powered-blower | battery | RUST,CRK | replace-battery
powered-blower | battery | BATT | recharge
powered-blower | hood | * | replace-hood
powered-blower | belt | BUCK,CUT | replace-ba-straps
powered-blower | blower | FLOW,CLOG | replace-filters
powered-blower | alarm | BATT | recharge
powered-blower | * | DIRTY,WET,DUST | wipe
powered-blower | * | LABEL | relabel
powered-blower | * | * | blower-service
ba-set | cylinder | FILL | refill
ba-set | cylinder | STAMP,LIFE,FIBRE,DENTC,RUST,EMPTY,THRD,LEAK | change-cylinder
ba-set | mask | SEALF,CRK,TEAR | ba-service
ba-set | coupling | COUP,CUT,HOSE,CRK | replace-hose
ba-set | gauge | HOSE,CUT | replace-hose
ba-set | coupling | LEAK | replace-seals
ba-set | reducer,tpiece | ORNG | replace-seals
ba-set | distress | BATT,ALRM | recharge
ba-set | strap,harness | CUT,BUCK,STRAP | replace-ba-straps
ba-set | * | EXT,COMP,WGHT | refit
ba-set | * | DIRTY,WET,DUST | wipe
ba-set | * | LABEL | relabel
ba-set | * | LOOSE | tighten
ba-set | * | * | ba-service
airline | source | AIRT | air-test
airline | source | FILL | refill
airline | sorbent | DATE,WET | replace-sorbent
airline | alarm | ALRM | replace-co-alarm
airline | alarm | BATT | recharge
airline | hose,reel | HOSE,CUT,COUP,LEAK | replace-hose
airline | facepiece | SCR,TEAR,CRK,HOLE | replace-hood
airline | escape | FILL | refill
airline | escape | STAMP,THRD | change-cylinder
airline | * | DIRTY,WET,DUST | wipe
airline | * | LABEL | relabel
airline | * | COMP | refit
airline | * | LOOSE | tighten
airline | * | * | airline-service
gas-tight-suit,ventilated-suit | gloves | GLOVE,HOLE,CHEM,TEAR | replace-gloves
gas-tight-suit | gloves | ORNG,PIN,CRK | replace-orings
gas-tight-suit,ventilated-suit | boots | BOOT,HOLE,SEAM,CHEM | replace-boots
gas-tight-suit,ventilated-suit | zip | ZIPV,CRK,MISS | replace-zip
gas-tight-suit,ventilated-suit | zip | WAX | wax-zip
gas-tight-suit,ventilated-suit | exhaust | CURL,SEAT,TEAR | replace-disc
gas-tight-suit | pass | ORNG | replace-orings
gas-tight-suit,ventilated-suit | bag | BAG | replace-bag
gas-tight-suit,ventilated-suit | * | LOOSE | tighten
gas-tight-suit,ventilated-suit | * | COMP | refit
gas-tight-suit,ventilated-suit | * | DIRTY,WET,DUST,MILD,CLOG | clean
gas-tight-suit,ventilated-suit | * | LABEL | relabel
ventilated-suit | hood | SCR,CRK | replace-hood
ventilated-suit | label | ONCE | retire
gas-tight-suit,ventilated-suit | sleeves,body,crotch | CHEM,STIFF,STICKY | retire
gas-tight-suit,ventilated-suit | * | * | suit-repair
escape-set | pouch | BUCK,CUT,TEAR | replace-ba-straps
escape-set | * | LABEL | relabel
escape-set | * | DIRTY,WET | wipe
escape-set | * | * | exchange-set
cylinder | body,stamp | STAMP,FIBRE,DENTC,RUST,CHEM,LABEL | test-house
cylinder | stamp | LIFE | retire
cylinder | valve | EMPTY | test-house
cylinder | valve | THRD,LEAK | cylinder-valve
cylinder | valve | ORNG | replace-seals
cylinder | * | DIRTY,WET,DUST | wipe
cylinder | label | LABEL | relabel
cylinder | * | FILL | refill
cylinder | * | * | cylinder-valve
opened-filter | * | DIRTY | wipe
opened-filter | * | * | discard-filter
`;

const ROWS = textTable(TABLE).map((row) => ({
	families: row.family?.split(',') ?? [],
	stations: row.station?.split(',') ?? [],
	codes: row.code?.split(',') ?? [],
	repair: row.repair ?? ''
}));

/** The usual repair of a fault: by what was found, where on the airway, on what. */
export function repairFor(code: string, station: string, family: string): Repair {
	const fits = (list: readonly string[], word: string) => list.includes('*') || list.includes(word);
	const row = ROWS.find(
		(one) =>
			one.families.includes(family) &&
			fits(one.stations, withoutSide(station)) &&
			fits(one.codes, code)
	);
	if (code === RECALLED) return changingPartsAt(station, family);
	if (row) return repairOf(row.repair);
	const usual = repairOf(rejectCode(code).repair);
	return usual.families.includes(family) ? usual : serviceOf(family);
}

/** The service of a family, or the end of the item where it has none. */
const serviceOf = (family: string): Repair =>
	repairsOf(family).find((job) => job.key.endsWith('-service')) ?? repairOf('retire');

/** The repair that changes the parts of a station: what mends a part that was called back. */
function changingPartsAt(station: string, family: string): Repair {
	const changes = ROWS.filter(
		({ families, stations }) => families.includes(family) && stations.includes(withoutSide(station))
	)
		.map(({ repair }) => repairOf(repair))
		.find(({ parts }) => parts.length > 0);
	return changes ?? serviceOf(family);
}

/** The station of a family that a job is done at: the first that any fault leads to it from; the label where none does. */
export function stationOfRepair(repair: string, family: string): string {
	const row = ROWS.find((one) => one.repair === repair && one.families.includes(family));
	const stations = airwayOf(family).stations.map(({ key }) => key);
	const at = row?.stations.find((word) => word !== '*');
	return stations.find((key) => withoutSide(key) === at) ?? stations.at(-1) ?? 'label';
}
