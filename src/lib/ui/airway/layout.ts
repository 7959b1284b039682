import { stretches, type Station, type Zone } from '$core/airway/airway';

/** Where a station lies on the drawing, in columns and in pixels from the top. */
export interface Placed {
	station: Station;
	column: number;
	y: number;
	/** Its label stands above the line. */
	above: boolean;
}

/** A stroke of the line, in columns and pixels. */
export interface Stroke {
	zone: Zone;
	d: (x: (column: number) => number) => string;
}

export interface AirwayLayout {
	placed: Placed[];
	strokes: Stroke[];
	columns: number;
	height: number;
}

/** Height of the drawing and of its middle line: a line that does not part needs no room above it. */
const PARTED = { height: 168, middle: 76 };
const SINGLE = { height: 96, middle: 34 };
const SPREAD = 36;
const LEAD = 0.75;
const BEND = 0.55;
const GAP = 0.5;

/** Lays an airway out as one line that parts into branches, then what holds it, after a gap. */
export function layOut(stations: readonly Station[]): AirwayLayout {
	const parts = stretches(stations);
	const { height, middle } = parts.some((p) => p.kind === 'branches') ? PARTED : SINGLE;
	const placed: Placed[] = [];
	const strokes: Stroke[] = [];
	let column = LEAD;
	let before = 0;
	let zone: Zone = 'ambient';
	const straight = (from: number, to: number, y: number, z: Zone) =>
		strokes.push({ zone: z, d: (x) => `M${x(from)} ${y}H${x(to)}` });

	for (const stretch of parts) {
		if (stretch.kind === 'branches') {
			const width = Math.max(stretch.left.length, stretch.right.length);
			straight(before, column - BEND, middle, zone);
			for (const [side, y] of [
				['left', middle - SPREAD],
				['right', middle + SPREAD]
			] as const) {
				const [start, end] = [column, column + width - 1];
				strokes.push({ zone, d: (x) => bend(x(start - BEND), middle, x(start), y) });
				let from = start;
				stretch[side].forEach((station, i) => {
					placed.push({ station, column: start + i, y, above: side === 'left' });
					if (i > 0) straight(from, start + i, y, stretch[side][i - 1]?.zone ?? zone);
					from = start + i;
				});
				const last: Zone = stretch[side].at(-1)?.zone ?? zone;
				strokes.push({ zone: last, d: (x) => bend(x(end), y, x(end + BEND), middle) });
				if (side === 'right') zone = last;
			}
			before = column + width - 1 + BEND;
			column = before + 0.7;
			continue;
		}
		const { station } = stretch;
		const newGroup = station.zone === 'holding' && zone !== 'holding';
		if (newGroup) {
			straight(before, before + GAP, middle, zone);
			column = before + GAP + 0.9;
			before = column - 0.3;
		}
		straight(before, column, middle, newGroup ? 'holding' : zone);
		placed.push({ station, column, y: middle, above: false });
		zone = station.zone;
		before = column;
		column += 1;
	}
	return { placed, strokes, columns: before + 0.6, height };
}

function bend(x1: number, y1: number, x2: number, y2: number): string {
	const middle = (x1 + x2) / 2;
	return `M${x1} ${y1}C${middle} ${y1} ${middle} ${y2} ${x2} ${y2}`;
}

/** How a zone is stroked: the stroke tells the side, shape before colour. */
export const STROKES: Record<Zone, { width: number; dash?: string; double?: boolean }> = {
	ambient: { width: 2.6, dash: '7 6' },
	filtered: { width: 2.6 },
	mask: { width: 2.6 },
	'suit interior': { width: 2.6 },
	'medium pressure': { width: 5 },
	'high pressure': { width: 6, double: true },
	holding: { width: 1.4 }
};
