import { type GrayPicture, shadeAt } from '../picture/gray.ts';
import type { Rim } from './rim.ts';

/** Directions in which a dial is looked at, and degrees from one to the next. */
export const TURNS = 1440;
export const TURN_DEG = 360 / TURNS;
const rad = (deg: number) => (deg * Math.PI) / 180;

/** What stands at a place of a row that goes round and round. */
export const roundAt = (row: Float64Array, place: number): number =>
	row[((place % row.length) + row.length) % row.length] ?? 0;

/** Places from one to another the shorter way round. */
export const apartRound = (a: number, b: number, places: number): number =>
	Math.min((a - b + places) % places, (b - a + places) % places);

/** Sum of a row about each place, round and round. */
function roundMean(row: Float64Array, reach: number): Float64Array {
	const n = row.length;
	const mean = new Float64Array(n);
	let sum = 0;
	for (let k = -reach; k <= reach; k++) sum += roundAt(row, k);
	for (let i = 0; i < n; i++) {
		mean[i] = sum / (2 * reach + 1);
		sum += roundAt(row, i + reach + 1) - roundAt(row, i - reach);
	}
	return mean;
}

/** Moves the middle of the unit disc and leaves its rim where it is, straight lines straight. */
function leaned(x: number, y: number, lean: { x: number; y: number }): [number, number] {
	const size = Math.hypot(lean.x, lean.y);
	if (size < 1e-9) return [x, y];
	const [ux, uy] = [lean.x / size, lean.y / size];
	const [along, across] = [x * ux + y * uy, y * ux - x * uy];
	const below = 1 + size * along;
	const [a, c] = [(along + size) / below, (across * Math.sqrt(1 - size * size)) / below];
	return [a * ux - c * uy, a * uy + c * ux];
}

/** A dial laid flat: what is printed on it by angle and distance from its middle, one at its rim. */
export class DialFace {
	/**
	 * @param lean where the middle of the dial lies beside that of its rim, in radii. A camera near a dial sees its nearer
	 * half larger: the projective map that leaves the rim as it is and moves the middle there undoes that
	 * @param dark its print is lighter than its face
	 */
	constructor(
		private readonly picture: GrayPicture,
		private readonly rim: Rim,
		readonly lean: { x: number; y: number },
		private readonly dark: boolean
	) {}

	/** The same dial with its middle a little further aside. */
	leaning(aside: { x: number; y: number }): DialFace {
		const lean = { x: this.lean.x + aside.x, y: this.lean.y + aside.y };
		return new DialFace(this.picture, this.rim, lean, this.dark);
	}

	/** Where a place lies in the picture, px. @param deg clockwise from up */
	placeAt(deg: number, far: number): { x: number; y: number } {
		const [x, y] = leaned(far * Math.sin(rad(deg)), -far * Math.cos(rad(deg)), this.lean);
		const { rim } = this;
		return {
			x: rim.middle.x + rim.xx * x + rim.xy * y,
			y: rim.middle.y + rim.xy * x + rim.yy * y
		};
	}

	shadeAt(deg: number, far: number): number {
		const { x, y } = this.placeAt(deg, far);
		const shade = shadeAt(this.picture, x - 0.5, y - 0.5);
		return this.dark ? 255 - shade : shade;
	}

	/**
	 * How much darker than what is about it each direction is at a distance, as a share of it; many directions.
	 * @param aboutDeg over how many degrees on each side it is compared
	 */
	printAt(far: number, aboutDeg: number, { thick = 0.015, turns = TURNS } = {}): Float64Array {
		const shades = new Float64Array(turns);
		for (const off of [-thick, 0, thick])
			for (let i = 0; i < turns; i++)
				shades[i] = (shades[i] ?? 0) + this.shadeAt((i * 360) / turns, far + off) / 3;
		const about = roundMean(shades, Math.round((aboutDeg * turns) / 360));
		return shades.map((shade, i) => ((about[i] ?? 0) - shade) / Math.max(20, about[i] ?? 0));
	}
}
