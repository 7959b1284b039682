/** Where a stretch of the air path lies; fixes the stroke it is drawn with. */
export type Zone =
	| 'ambient'
	| 'filtered'
	| 'high pressure'
	| 'medium pressure'
	| 'mask'
	| 'suit interior'
	| 'holding';

/** One place on the line where something can be wrong. */
export interface Station {
	key: string;
	name: string;
	/** Label on the drawing. */
	short: string;
	zone: Zone;
	side?: 'left' | 'right';
	/** May be absent on an item. */
	ifFitted?: boolean;
	/** What can be wrong there. */
	faults: string;
}

/** A family of equipment as the way the air takes through it, then what holds it. */
export interface Airway {
	family: string;
	name: string;
	plural: string;
	stations: readonly Station[];
}

/** A stretch of the line as it is drawn: one station, or a left and a right branch of equal length. */
export type Stretch =
	{ kind: 'single'; station: Station } | { kind: 'branches'; left: Station[]; right: Station[] };

/** The line cut into stretches, in order; stations that have a side are gathered into branches. */
export function stretches(stations: readonly Station[]): Stretch[] {
	const line: Stretch[] = [];
	for (const station of stations) {
		if (!station.side) {
			line.push({ kind: 'single', station });
			continue;
		}
		let last = line.at(-1);
		if (last?.kind !== 'branches') {
			last = { kind: 'branches', left: [], right: [] };
			line.push(last);
		}
		last[station.side].push(station);
	}
	return line;
}

/** How a zone is said beside a station. */
export const ZONE_NAMES: Record<Zone, string> = {
	ambient: 'room air',
	filtered: 'after the filter, before the mask',
	'high pressure': 'high pressure',
	'medium pressure': 'medium pressure',
	mask: 'inside the mask, under room pressure when breathing in',
	'suit interior': 'inside the suit',
	holding: 'what holds and serves it'
};

/** A station whichever side it is on. */
export const withoutSide = (station: string): string => station.replace(/-(left|right)$/, '');
