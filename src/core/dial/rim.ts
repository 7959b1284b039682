import { type GrayPicture, type Point, shadeAt } from '../picture/gray.ts';
import { Chance } from '../stats/chance.ts';
import { leastSquares } from './solve.ts';

/** A circle that is seen aslant: where a place of the unit circle lies in the picture. */
export interface Rim {
	middle: Point;
	/** Takes a place of the unit circle, x right and y down, to px from the middle: symmetric, so that up stays up. */
	xx: number;
	xy: number;
	yy: number;
	/** Shorter axis by the longer one. */
	flatness: number;
	/** Mean of the axes, px. */
	radiusPx: number;
	/** Share of the directions in which its edge was found. */
	found: number;
}

/** Where a dial is looked for. */
export interface DialGuess extends Point {
	radiusPx: number;
}

const RAYS = 120;
/** Drawn ellipses. */
const TRIES = 600;
/** An edge belongs to an ellipse when it is so near, as a share of the radius. */
const NEAR = 0.02;
/** Edges of a ray that are tried. */
const EDGES = 4;
/** How far from the guess a dial may lie, as shares of its radius. */
const [LEAST, MOST, ASIDE] = [0.55, 1.45, 0.45];

interface Edge {
	ray: number;
	/** Distance from the guess, in its radii. */
	far: number;
	rises: boolean;
	strength: number;
}

type Conic = readonly number[];

/** Steepest changes of brightness along each ray from the guess. */
function edgesOf(picture: GrayPicture, guess: DialGuess): Edge[] {
	const steps = 200;
	const at = (i: number) => LEAST + ((MOST - LEAST) * i) / steps;
	return Array.from({ length: RAYS }, (_, ray) => {
		const [dx, dy] = directionOf(ray);
		const shades = Float64Array.from({ length: steps + 1 }, (_, i) =>
			shadeAt(picture, guess.x + dx * at(i) * guess.radiusPx, guess.y + dy * at(i) * guess.radiusPx)
		);
		const reach = 3;
		const change = (i: number) => {
			let sum = 0;
			for (let k = 1; k <= reach; k++) sum += (shades[i + k] ?? 0) - (shades[i - k] ?? 0);
			return sum / reach;
		};
		const found: Edge[] = [];
		for (let i = reach + 1; i < steps - reach; i++) {
			const strength = Math.abs(change(i));
			if (strength > 6 && strength >= Math.abs(change(i - 1)) && strength > Math.abs(change(i + 1)))
				found.push({ ray, far: at(i), rises: change(i) > 0, strength });
		}
		return found.sort((a, b) => b.strength - a.strength).slice(0, EDGES);
	}).flat();
}

const directionOf = (ray: number): [number, number] => [
	Math.cos((2 * Math.PI * ray) / RAYS),
	Math.sin((2 * Math.PI * ray) / RAYS)
];

/** a x² + b x y + c y² + d x + e y = 1 through edges, in radii of the guess. */
function conicThrough(edges: readonly Edge[]): Conic | null {
	const rows = edges.map(({ ray, far }) => {
		const [dx, dy] = directionOf(ray);
		const [x, y] = [dx * far, dy * far];
		return [x * x, x * y, y * y, x, y];
	});
	return leastSquares(
		rows,
		edges.map(() => 1)
	);
}

/** How far along a ray a conic is met, in radii of the guess; NaN where it is not. */
function farAlong([a = 0, b = 0, c = 0, d = 0, e = 0]: Conic, ray: number): number {
	const [dx, dy] = directionOf(ray);
	const [square, linear] = [a * dx * dx + b * dx * dy + c * dy * dy, d * dx + e * dy];
	return (-linear + Math.sqrt(linear * linear + 4 * square)) / (2 * square);
}

/** The ellipse of a conic in the picture; null where it is none, or none that a dial could be. */
function rimOf([a = 0, b = 0, c = 0, d = 0, e = 0]: Conic, guess: DialGuess): Rim | null {
	const det = a * c - (b * b) / 4;
	if (!(det > 0) || a <= 0) return null;
	const [mx, my] = [(-d * c + (e * b) / 2) / (2 * det), (-e * a + (d * b) / 2) / (2 * det)];
	const size = 1 + a * mx * mx + b * mx * my + c * my * my;
	// Axes of the matrix, and its root turned round.
	const [mean, half] = [(a + c) / 2, Math.hypot((a - c) / 2, b / 2)];
	const [long, short] = [Math.sqrt(size / (mean - half)), Math.sqrt(size / (mean + half))];
	const turn = half < 1e-9 ? 0 : Math.atan2(b, a - c) / 2;
	const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
	// The direction of the larger eigenvalue is the shorter axis.
	const rim: Rim = {
		middle: { x: guess.x + mx * guess.radiusPx, y: guess.y + my * guess.radiusPx },
		xx: (short * cos * cos + long * sin * sin) * guess.radiusPx,
		xy: (short - long) * cos * sin * guess.radiusPx,
		yy: (short * sin * sin + long * cos * cos) * guess.radiusPx,
		flatness: short / long,
		radiusPx: ((short + long) / 2) * guess.radiusPx,
		found: 0
	};
	const fits =
		Math.hypot(mx, my) < ASIDE &&
		long < MOST &&
		short > LEAST * 0.7 &&
		rim.flatness > 0.6 &&
		Number.isFinite(rim.radiusPx);
	return fits ? rim : null;
}

/**
 * Finds the rim of a dial near a guess: ellipses are drawn through edges that look alike, and the one that most
 * directions agree on is taken.
 * Published: M. A. Fischler and R. C. Bolles, Communications of the ACM 24 (1981); from memory. Seeded, so that a picture
 * is read the same every time.
 * @returns null where nothing round is there
 */
export function findRim(picture: GrayPicture, guess: DialGuess): Rim | null {
	const edges = edgesOf(picture, guess);
	const chance = new Chance(20);
	let best: { conic: Conic; own: Edge[]; weight: number } | undefined;
	for (const rises of [true, false]) {
		const alike = edges.filter((edge) => edge.rises === rises);
		const byRay = Array.from({ length: RAYS }, (_, ray) => alike.filter((e) => e.ray === ray));
		const filled = byRay.filter((row) => row.length);
		if (filled.length < 12) continue;
		for (let i = 0; i < TRIES; i++) {
			// Spread about the circle: one out of each sixth.
			const begin = chance.int(0, filled.length - 1);
			const six = Array.from({ length: 6 }, (_, k) =>
				chance.pick(
					filled[
						(begin + Math.floor(((k + chance.next() * 0.8) * filled.length) / 6)) % filled.length
					] ?? []
				)
			);
			const conic = conicThrough(six);
			if (!conic || !rimOf(conic, guess)) continue;
			const own = membersOf(byRay, conic);
			const weight =
				own.reduce((sum, { strength }) => sum + Math.min(40, strength), 0) + 4 * own.length;
			if (!best || weight > best.weight) best = { conic, own, weight };
		}
		if (!best) continue;
		if (best.own[0]?.rises !== rises) continue;
		for (let again = 0; again < 3; again++) {
			const conic: Conic | null = conicThrough(best.own);
			if (!conic) break;
			best = { ...best, conic, own: membersOf(byRay, conic) };
		}
	}
	if (!best) return null;
	const rim = rimOf(best.conic, guess);
	return rim && { ...rim, found: best.own.length / RAYS };
}

function membersOf(byRay: readonly (readonly Edge[])[], conic: Conic): Edge[] {
	return byRay.flatMap((row, ray) => {
		const wanted = farAlong(conic, ray);
		const near = row.filter(({ far }) => Math.abs(far - wanted) < NEAR);
		const [nearest] = near.sort((a, b) => Math.abs(a.far - wanted) - Math.abs(b.far - wanted));
		return nearest ? [nearest] : [];
	});
}

/** The angle at which a place of the picture lies on a dial that is held upright: degrees clockwise from the top. */
export function angleOnRim({ middle, xx, xy, yy }: Rim, { x, y }: Point): number {
	const [px, py] = [x - middle.x, y - middle.y];
	const det = xx * yy - xy * xy;
	const [dx, dy] = [(yy * px - xy * py) / det, (xx * py - xy * px) / det];
	return (Math.atan2(dx, -dy) * 180) / Math.PI;
}
