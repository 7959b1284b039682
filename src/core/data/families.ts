import type { Airway, Station } from '../airway/airway.ts';
import { MORE_FAMILIES } from './family-tables.ts';

/** The same station on both sides of a two-filter mask, left first. */
function bothSides(station: Omit<Station, 'side'>): Station[] {
	return (['left', 'right'] as const).map((side) => ({
		...station,
		key: `${station.key}-${side}`,
		name: `${station.name}, ${side}`,
		side
	}));
}

/** Equipment families and their airways. Common practice: the inspection follows the air. */
export const FAMILIES: readonly Airway[] = [
	{
		family: 'half-mask',
		name: 'Half mask',
		plural: 'Half masks',
		stations: [
			...bothSides({
				key: 'prefilter',
				name: 'Pre-filter and retainer',
				short: 'pre-filter',
				zone: 'ambient',
				ifFitted: true,
				faults: 'Clogged, reversed, retainer cracked, printed side in, one-time adapter used again'
			}),
			...bothSides({
				key: 'filter',
				name: 'Filter or cartridge',
				short: 'filter',
				zone: 'ambient',
				faults: 'Out of date, no opening date, dented, rattles, rust, unequal pair, unknown history'
			}),
			...bothSides({
				key: 'gasket',
				name: 'Mount and gasket',
				short: 'gasket',
				zone: 'filtered',
				faults: 'Gasket lost or cut, lug worn, dirt under the seal'
			}),
			...bothSides({
				key: 'inhalation',
				name: 'Inhalation valve',
				short: 'in-valve',
				zone: 'filtered',
				faults: 'Disc curled, creased, stiff, dirty or missing'
			}),
			{
				key: 'facepiece',
				name: 'Facepiece and sealing edge',
				short: 'facepiece',
				zone: 'mask',
				faults: 'Cracked, torn, distorted, sticky, stiff, dirty edge'
			},
			{
				key: 'exhalation',
				name: 'Exhalation valve and seat',
				short: 'out-valve',
				zone: 'mask',
				faults: 'Disc curled or stiff, grit on the seat, seat nicked'
			},
			{
				key: 'cover',
				name: 'Valve cover',
				short: 'cover',
				zone: 'ambient',
				faults: 'Missing, cracked, does not click'
			},
			{
				key: 'harness',
				name: 'Head harness and buckles',
				short: 'harness',
				zone: 'holding',
				faults: 'Elastic dead, cut, buckle slips, cradle cracked'
			},
			{
				key: 'label',
				name: 'Label and identity',
				short: 'label',
				zone: 'holding',
				faults: 'Unreadable, wrong tag, plastic parts cracked'
			},
			{
				key: 'bag',
				name: 'Bag or box',
				short: 'bag',
				zone: 'holding',
				faults: 'Dirty, wet, torn, crushed under other gear'
			}
		]
	},
	...MORE_FAMILIES
];

/** The airway of a family. Throws RangeError on a family that Grevan does not know. */
export function airwayOf(family: string): Airway {
	const airway = FAMILIES.find((f) => f.family === family);
	if (!airway) throw new RangeError(`No equipment family "${family}".`);
	return airway;
}

/** The station of a family by key. Throws RangeError on an unknown one. */
export function stationOf(family: string, key: string): Station {
	const station = airwayOf(family).stations.find((s) => s.key === key);
	if (!station) throw new RangeError(`No station "${key}" on the airway of ${family}.`);
	return station;
}

/** A name as it stands within a sentence: lower case, but for words that are letters, such as BA. */
export const inSentence = (name: string): string =>
	name.replaceAll(/\b[A-Z][a-z]+/g, (word) => word.toLowerCase());

/** So many of a family, in words. */
export function countOf(family: string, n: number): string {
	const { name, plural } = airwayOf(family);
	return `${n} ${inSentence(n === 1 ? name : plural)}`;
}
